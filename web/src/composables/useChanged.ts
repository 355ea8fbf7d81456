import { useQueryClient } from '@tanstack/vue-query'

/** All that is read of a series. */
const WHOLE_SERIES = [
  'answers',
  'common-time',
  'decisions',
  'desk',
  'history',
  'invitation',
  'meetings',
  'presence',
  'series',
  'sheet',
  'still-holds',
  'strands',
  'untold',
] as const

/** What else reads differently after a deed, by the first part of the names under which it is kept. */
const CHANGES = {
  action: ['actions', 'desk', 'series', 'sheet', 'strands'],
  address: ['answers', 'desk', 'mails', 'series'],
  answer: WHOLE_SERIES,
  calendar: ['busy', 'common-time', 'desk', 'people', 'person', 'place'],
  extra: ['answers', 'desk', 'series', 'untold'],
  group: ['groups'],
  hold: ['common-time', 'desk', 'holds'],
  hours: ['common-time', 'desk', 'people'],
  incomingMail: ['answers', 'desk', 'incoming-mails'],
  meetingTime: ['answers', 'common-time', 'desk', 'meetings', 'series', 'still-holds', 'strands', 'untold'],
  outside: ['busy', 'common-time', 'desk', 'person', 'still-holds'],
  outsideSheets: ['desk', 'outside-meetings', 'series'],
  person: ['desk', 'people', 'destinations'],
  openHours: ['common-time', 'desk', 'open-hours'],
  place: ['desk', 'place', 'places', 'destinations'],
  poll: [...WHOLE_SERIES, 'holds', 'people', 'polls'],
  run: WHOLE_SERIES,
  series: ['common-time', 'desk', 'destinations', 'series', 'untold'],
  told: ['answers', 'desk', 'history', 'series', 'untold'],
  sheet: ['actions', 'decisions', 'desk', 'meetings', 'destinations', 'series', 'strands'],
} as const

/** Has what a deed has changed read again, wherever it is shown. */
export function useChanged() {
  const cache = useQueryClient()
  return (deed: keyof typeof CHANGES) => CHANGES[deed].forEach(name => cache.invalidateQueries({ queryKey: [name] }))
}
