import { expect, test } from 'vitest'
import type { Entry } from '../src/deeds'
import { keepEntry, readAll, readEntry, STORE } from '../src/composables/unsentStore'

function storage(kept: Record<string, string>, full = false) {
  const map = new Map(Object.entries(kept))
  return {
    getItem: (name: string) => map.get(name) ?? null,
    removeItem: (name: string) => void map.delete(name),
    setItem(name: string, text: string) {
      if (full) throw new DOMException('full', 'QuotaExceededError')
      map.set(name, text)
    },
    names: () => [...map.keys()],
  }
}
const entry = (key: string): Entry => ({ key, meetingId: 'm', by: 'p', deed: { kind: 'remove', lineId: 'l' } })
const text = (key: string) => JSON.stringify(entry(key))

test('what was left is read in the order in which it was done', () => {
  const store = storage({ [`${STORE}2`]: text('2'), [`${STORE}1`]: text('1'), other: '{' })
  expect(readAll(store, store.names())).toEqual({ entries: [entry('1'), entry('2')], unreadable: 0 })
})

test.each([
  ['half of one', '{"key":"1"'],
  ['no object', '7'],
  ['one without a deed', '{"key":"1"}'],
])('%s holds up nothing, and is laid aside', (_, broken) => {
  const store = storage({ [`${STORE}1`]: broken, [`${STORE}2`]: text('2') })
  expect(readAll(store, store.names())).toEqual({ entries: [entry('2')], unreadable: 1 })
  expect(store.getItem('left-over:unreadable:1')).toBe(broken)
  expect(store.getItem(`${STORE}1`)).toBeNull()
})

test('a full store says so, and loses nothing that is there', () => {
  const store = storage({ [`${STORE}1`]: '{' }, true)
  expect(keepEntry(store, entry('2'))).toBe(false)
  expect(readAll(store, store.names()).unreadable).toBe(1)
  expect(store.getItem(`${STORE}1`)).toBe('{')
})

test('moving a line has had another name', () => {
  const old = JSON.stringify({ ...entry('1'), deed: { kind: 'place', lineId: 'l', body: {} } })
  expect(readEntry(old)?.deed.kind).toBe('move')
})
