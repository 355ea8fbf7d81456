import { describe, expect, it } from 'vitest'
import type { Schemas } from '../src/api/client'
import { standing } from '../src/answers'

const meeting = (over: Partial<Schemas['LinkMeeting']>) =>
  ({ state: 'planned', answer: 'none', answersAsked: true, seatsLeft: null, ...over }) as Schemas['LinkMeeting']

// How a meeting stands, as whoever was invited reads it behind its date.
describe('what somebody invited reads of a meeting', () => {
  it.each<[string, Partial<Schemas['LinkMeeting']>, Parameters<typeof standing>[1], string]>([
    ['not answered', {}, {}, 'not answered yet'],
    ['accepted', { answer: 'accepted' }, {}, 'you come'],
    ['no answer asked', { answersAsked: false }, {}, ''],
    ['answered though not asked', { answersAsked: false, answer: 'tentative' }, {}, 'you may come'],
    ['called off', { state: 'called_off', calledOffReason: 'No quorum' }, {}, 'called off: No quorum'],
    ['for information', { answer: 'accepted' }, { informed: true }, ''],
    ['for information, and away', { answer: 'declined' }, { informed: true }, 'you will not be there'],
    ['signed up', { signUp: true, answer: 'accepted', seatsLeft: 1 }, {}, 'you have a seat, 1 seat left'],
    ['signed up, now full', { signUp: true, answer: 'accepted', seatsLeft: 0 }, {}, 'you have a seat, no seat left'],
    ['not signed up', { signUp: true, answersAsked: false, seatsLeft: 2 }, {}, '2 seats left'],
    [
      'waiting',
      { signUp: true, answer: 'accepted', seatsLeft: 0, wait: 3 },
      {},
      'all seats are taken: you are number 3 of those who wait',
    ],
    ['somebody else comes', { substitute: 'Odd Berge', answer: 'declined' }, {}, 'Odd Berge comes instead'],
    ['instead of somebody', { insteadOf: 'Wen Halloran' }, {}, 'instead of Wen Halloran, not answered yet'],
    ['instead at all of them', { insteadOf: 'Wen Halloran' }, { allInstead: true }, 'not answered yet'],
    ['somebody who cannot either', { substitute: 'Odd', substituteDeclined: true }, {}, 'Odd cannot come either'],
    ['moved since it was answered', { lapsed: true }, {}, 'moved: please answer again'],
  ])('%s', (_, over, whose, words) => expect(standing(meeting(over), whose)).toBe(words))
})
