import { describe, expect, it } from 'vitest'
import type { Schemas } from '../src/api/client'
import { calendarWords, initialsOf, ruleOfAsk, type AskForm } from '../src/asking'

describe('the rule of what is asked for', () => {
  it.each<[Pick<AskForm, 'outcome' | 'repeat' | 'count'>, string | null]>([
    [{ outcome: 'meeting', repeat: 'week', count: 10 }, null],
    [{ outcome: 'series', repeat: 'week', count: 10 }, 'FREQ=WEEKLY;COUNT=10'],
    [{ outcome: 'series', repeat: 'fourWeeks', count: '' }, 'FREQ=WEEKLY;INTERVAL=4'],
    [{ outcome: 'series', repeat: 'month', count: 6 }, 'FREQ=MONTHLY;COUNT=6'],
  ])('%o is %s', (form, rule) => expect(ruleOfAsk(form)).toBe(rule))
})

it.each([
  ['Marit Hauge', 'MH'],
  ['Tomás de Queirós Reis', 'TR'],
  ['Wen', 'W'],
])('%s is %s in a mark', (name, mark) => expect(initialsOf(name)).toBe(mark))

describe('what calendars say of a time', () => {
  const person = (name: string, state: Schemas['PersonState']['state']) => ({ name, state })
  it.each<[string, ReturnType<typeof person>[], string]>([
    ['nobody asked', [], ''],
    ['all free', [person('Ines', 'free')], 'all are free, as far as their calendars tell'],
    [
      'each in a word, the surest first',
      [person('Odd', 'unknown'), person('Ines', 'tentative'), person('Lars', 'outside'), person('Wen', 'busy')],
      'busy: Wen · outside their hours: Lars · perhaps busy: Ines · no calendar known: Odd',
    ],
  ])('%s', (_, people, words) => expect(calendarWords(people)).toBe(words))
})
