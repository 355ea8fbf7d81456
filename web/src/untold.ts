import type { Schemas } from './api/client'
import { count, list } from './time'

type Counts = Pick<Schemas['UntoldSeries'], 'invited' | 'calledOff' | 'broughtBack' | 'takenOff' | 'people'>

/** "3 people to tell of changes and 1 person to invite" */
export function untoldWords(untold: Counts) {
  const changed = untold.people - untold.invited - untold.takenOff - untold.calledOff - untold.broughtBack
  const said: [number, string][] = [
    [untold.invited, 'to invite'],
    [changed, 'to tell of changes'],
    [untold.calledOff, 'to tell that it is called off'],
    [untold.broughtBack, 'to tell that it takes place after all'],
    [untold.takenOff, 'to tell not to come'],
  ]
  return list(said.filter(([number]) => number > 0).map(([number, words]) => `${count(number, 'person')} ${words}`))
}

/** "Otto Brandt has no address", or nothing. */
export const unreachableWords = (people: { name: string }[]) =>
  people.length ? `${list(people.map(one => one.name))} ${people.length === 1 ? 'has' : 'have'} no address` : ''

/** "7 people get it; Otto Brandt has no address" */
export function whoGets(people: { name: string; reachable?: boolean }[]) {
  const reached = people.filter(one => one.reachable !== false).length
  const without = unreachableWords(people.filter(one => one.reachable === false))
  return `${count(reached, 'person')} ${reached === 1 ? 'gets' : 'get'} it${without ? `; ${without}` : ''}`
}

/** What is untold of a series, in one sentence without its end. */
export const untoldSentence = (untold: Schemas['UntoldSeries']) =>
  [
    untold.people > 0 && (untold.state === 'never' ? 'nobody has been told yet' : untoldWords(untold)),
    unreachableWords(untold.unreachable),
  ]
    .filter(Boolean)
    .join('; ')
