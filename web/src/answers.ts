import type { Schemas } from './api/client'
import { count } from './time'

type Word = Schemas['AnswerWord']

/** How an answer is said: of somebody, to oneself, and by oneself. */
export const ANSWERS: Record<Word, { they: string; you: string; i: string }> = {
  accepted: { they: 'comes', you: 'you come', i: 'I come' },
  tentative: { they: 'may come', you: 'you may come', i: 'I may come' },
  declined: { they: 'is away', you: 'you are away', i: 'I cannot' },
  none: { they: 'not answered yet', you: 'not answered yet', i: 'Take the answer back' },
}

/** The three that are offered, in order. */
export const GIVEN = ['accepted', 'tentative', 'declined'] as const

/** "12 seats, 3 left, 2 wait"; without a limit, how many have signed up. */
export function seatWords(limit: number | null, taken: number, waiting = 0) {
  if (limit === null) return `${taken} signed up`
  const left = Math.max(limit - taken, 0)
  const others = waiting ? `, ${waiting} ${waiting === 1 ? 'waits' : 'wait'}` : ''
  return `${count(limit, 'seat')}, ${left || 'none'} left${others}`
}

/** How many seats are left, where people sign up for them. */
function seats(left: number | null) {
  if (left === null) return ''
  return left > 0 ? `${count(left, 'seat')} left` : 'no seat left'
}

function mine(meeting: Schemas['LinkMeeting']) {
  if (meeting.wait) return `all seats are taken: you are number ${meeting.wait} of those who wait`
  if (meeting.substitute) {
    return `${meeting.substitute} ${meeting.substituteDeclined ? 'cannot come either' : 'comes instead'}`
  }
  if (meeting.signUp && meeting.answer === 'accepted') return 'you have a seat'
  if (meeting.lapsed && meeting.answer === 'none') return 'moved: please answer again'
  return meeting.answersAsked || meeting.answer !== 'none' ? ANSWERS[meeting.answer].you : ''
}

/**
 * How a meeting stands for whoever was invited, in words to them.
 * @param allInstead whether they come to all of them instead of the same person, which is said once for all
 */
export function standing(meeting: Schemas['LinkMeeting'], { informed = false, allInstead = false } = {}) {
  if (meeting.state === 'called_off') return `called off: ${meeting.calledOffReason}`
  if (informed) return meeting.answer === 'declined' ? 'you will not be there' : ''
  return [
    meeting.insteadOf && !allInstead ? `instead of ${meeting.insteadOf}` : '',
    mine(meeting),
    meeting.wait ? '' : seats(meeting.seatsLeft),
  ]
    .filter(Boolean)
    .join(', ')
}
