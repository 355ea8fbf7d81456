import { ref } from 'vue'
import { beforeAll, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Line, Sheet } from '../src/api/client'
import type { useMinutes as Use } from '../src/composables/useMinutes'

// What a browser gives a page; nothing is ever sent, so that all that is done stays to be looked at.
const kept = new Map<string, string>()
const storage = {
  getItem: (name: string) => kept.get(name) ?? null,
  setItem: (name: string, value: string) => void kept.set(name, value),
  removeItem: (name: string) => void kept.delete(name),
}
let useMinutes: typeof Use

beforeAll(async () => {
  vi.useFakeTimers()
  vi.spyOn(console, 'warn').mockImplementation(() => {}) // of what is to be done when a page is left: there is none
  vi.stubGlobal('localStorage', storage)
  vi.stubGlobal('addEventListener', () => {})
  vi.stubGlobal('dispatchEvent', () => true)
  vi.stubGlobal('navigator', {})
  vi.stubGlobal('fetch', () => new Promise(() => {}))
  useMinutes = (await import('../src/composables/useMinutes')).useMinutes
  const { useMine } = await import('../src/composables/useMine')
  useMine().become('marit')
})

const line = (id: string, position: number) =>
  ({ id, topicId: 't', position, text: id, kind: 'note', version: 1, indent: 0, action: null }) as unknown as Line
const sheetOf = (...ids: string[]) =>
  ({ people: [], leftOver: [], leftOverLines: [], topics: [{ id: 't', lines: ids.map(line) }] }) as unknown as Sheet

describe('what is taken back and done again', () => {
  let minutes: ReturnType<typeof Use>
  beforeEach(() => {
    const nothing = () => {}
    minutes = useMinutes('a-meeting', ref(sheetOf('a', 'b')), { keepLine: nothing, dropLine: nothing, show: nothing })
    minutes.unsent.value.forEach(minutes.discard)
  })
  const last = () => minutes.unsent.value.at(-1)!.deed
  const shown = () => minutes.shown.value!.topics[0]!.lines.map(one => one.id).join('')
  const find = (id: string) => minutes.shown.value!.topics[0]!.lines.find(one => one.id === id)!

  it('is where it was put, also when the page did not know yet that it had been put there', () => {
    minutes.move(find('b'), -1)
    expect(shown()).toBe('ba')
    minutes.unsent.value.forEach(minutes.discard) // the server has it, its answer is still on its way
    expect(shown()).toBe('ab')
    minutes.undo()
    minutes.redo()
    expect(last()).toMatchObject({ kind: 'move', lineId: 'b', body: { afterId: null } })
    expect(shown()).toBe('ba')
    minutes.undo()
    expect(shown()).toBe('ab')
  })

  it('brings a line that was added back as it was when it was taken back', () => {
    const id = minutes.add('t', 'Quiet week')
    minutes.change(find(id), { kind: 'decision', text: 'Quiet week' })
    minutes.undo()
    minutes.undo()
    expect(shown()).toBe('ab')
    minutes.redo()
    expect(last()).toMatchObject({ kind: 'restore', line: { text: 'Quiet week', kind: 'note' } })
    minutes.redo()
    expect(find(id).kind).toBe('decision')
    expect([minutes.canUndo.value, minutes.canRedo.value]).toEqual([true, false])
  })

  it('takes all parts of one deed back together', () => {
    minutes.split(find('a'), 'a', 'and more')
    expect(shown()).toMatch(/^a.+b$/)
    minutes.undo()
    expect(shown()).toBe('ab')
    minutes.redo()
    expect(minutes.shown.value!.topics[0]!.lines.map(one => one.text)).toEqual(['a', 'and more', 'b'])
  })

  it('can no more be done again once something else was done', () => {
    minutes.remove(find('a'))
    minutes.undo()
    minutes.indent(find('b'), 1)
    expect([shown(), minutes.canRedo.value]).toEqual(['ab', false])
  })
})
