import { describe, expect, it } from 'vitest'
import { droppedOn, moved } from '../src/order'

const IDS = ['a', 'b', 'c', 'd']

describe('Another order', () => {
  it.each([
    ['b', 1, ['a', 'c', 'b', 'd']],
    ['b', -1, ['b', 'a', 'c', 'd']],
    ['a', -1, null],
    ['d', 1, null],
  ])('of %s moved by %d', (id, by, order) => expect(moved(IDS, id, by)).toEqual(order))

  it.each([
    ['d', 'b', ['a', 'd', 'b', 'c']],
    ['a', 'c', ['b', 'c', 'a', 'd']],
    ['b', 'b', null],
  ])('of %s let go on %s', (id, onto, order) => expect(droppedOn(IDS, id, onto)).toEqual(order))
})
