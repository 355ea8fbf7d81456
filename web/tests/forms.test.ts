import { describe, expect, it } from 'vitest'
import type { Schemas } from '../src/api/client'
import { callForm, callOf, plainWords, type CallForm } from '../src/calls'
import { emptyOpenHours, formOfOpenHours } from '../src/openHours'

const own = { url: 'https://call.example/1', passcode: '12', dialIn: '+47 55 00' } as Schemas['Call']

// What a form holds and what the server takes are not quite the same; nothing is lost on the way there and back.
describe('the call of a meeting, as a form has it', () => {
  it.each<[string, Schemas['Call'] | null, Schemas['CallKind'] | undefined, Partial<CallForm>]>([
    ['none', null, undefined, { kind: 'none', url: '', passcode: '', dialIn: '' }],
    ['a link of one’s own', own, undefined, { kind: 'own', url: own.url!, passcode: '12', dialIn: '+47 55 00' }],
    ['one made here says nothing of its link', { ...own, ours: 1 }, 'standing', { kind: 'standing', url: '' }],
  ])('%s', (_, call, kind, form) => expect(callForm(call, kind)).toMatchObject(form))

  it.each<[string, CallForm, Schemas['CallWish']]>([
    [
      'an empty passcode is none',
      { kind: 'own', url: own.url!, passcode: '', dialIn: '', dial: true },
      { kind: 'own', url: own.url!, passcode: null, dialIn: null },
    ],
    [
      'one made here takes no link that was typed before',
      { kind: 'fresh', url: own.url!, passcode: '1', dialIn: '2', dial: true },
      { kind: 'fresh', dial: true },
    ],
  ])('to the server: %s', (_, form, wish) => expect(callOf(form)).toEqual(wish))

  it('is copied with what there is of it', () => {
    expect(plainWords('Round', 'Mon 30 Nov', own)).toBe(
      'Round\nMon 30 Nov\nhttps://call.example/1\nPasscode 12\nOr dial +47 55 00',
    )
    expect(plainWords('Round', 'Mon 30 Nov', { url: own.url } as Schemas['Call'])).toBe(
      'Round\nMon 30 Nov\nhttps://call.example/1',
    )
  })
})

describe('open hours, as a form has them', () => {
  const open = {
    ...emptyOpenHours('Europe/Oslo', 'm'),
    id: 'o',
    version: 4,
    mine: true,
    words: null,
    place: null,
    placeId: null,
    lengths: [15, 30],
    hosts: [{ personId: 'm', name: 'Marit', week: null, zoneCity: 'Oslo' }],
  } as unknown as Schemas['OpenHours']

  it('has all that can be set, and nothing else', () => {
    const form = formOfOpenHours(open)
    expect(Object.keys(form).sort()).toEqual(Object.keys(emptyOpenHours('', '')).sort())
    expect(form).toMatchObject({ words: '', place: '', lengths: [15, 30], hosts: [{ personId: 'm', week: null }] })
  })
})
