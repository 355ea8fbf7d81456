import { describe, expect, it } from 'vitest'
import { shortName } from '../src/names'

describe('what somebody is called among others', () => {
  const people = ['Lars Ekeli', 'Lars Moen', 'Ines Torvald', 'Cher', 'Ana Maria Costa', 'Ana Lund'].map(name => ({
    name,
  }))
  it.each([
    ['Lars Ekeli', 'Lars E'],
    ['Lars Moen', 'Lars M'],
    ['Ines Torvald', 'Ines'],
    ['Cher', 'Cher'],
    ['Ana Maria Costa', 'Ana C'],
    ['Ana Lund', 'Ana L'],
    ['Rory Penhallow', 'Rory'],
  ])('%s is %s', (name, called) => {
    expect(shortName(name, people)).toBe(called)
  })
})
