import { nextTick, ref } from 'vue'
import { describe, expect, it } from 'vitest'
import { useTimes, type Wanted } from '../src/public/useTimes'

/** A server that answers when it is told to, in any order. */
function server() {
  const asked: {
    wanted: Wanted
    answer: (days?: string[], lastMonth?: string) => Promise<void>
    fail: () => Promise<void>
  }[] = []
  const read = (wanted: Wanted) =>
    new Promise<never>((resolve, reject) => {
      const settled = () => new Promise<void>(done => setTimeout(done))
      asked.push({
        wanted,
        answer: (days = [], lastMonth = '2027-03') => {
          const { month, lengthMin = 30 } = wanted
          const free = days.map(on => ({ on, times: [{ startsAt: `${on}T09:00:00Z`, hosts: [] }] }))
          resolve({ month, lastMonth, lengthMin, paused: false, days: free } as never)
          return settled()
        },
        fail: () => {
          reject(new Error('no connection'))
          return settled()
        },
      })
    })
  return { asked, read }
}
const begin = () => {
  const { asked, read } = server()
  return { asked, shown: useTimes(ref('Europe/Oslo'), read, '2026-12-01T09:00') }
}

// A visitor turns pages faster than a server answers.
describe('the free times of a month', () => {
  it('are those of the month looked at last, whichever answer comes last', async () => {
    const { asked, shown } = begin()
    await asked[0]!.answer(['2026-12-03'])
    shown.month = '2027-01'
    await nextTick()
    shown.month = '2027-02'
    await nextTick()
    await asked[2]!.answer(['2027-02-05'])
    await asked[1]!.answer(['2027-01-11'])
    expect([shown.times!.month, shown.day, shown.busy]).toEqual(['2027-02', '2027-02-05', false])
  })

  it('begin with the next month that is on offer when nothing is left in this one, but only at first', async () => {
    const { asked, shown } = begin()
    await asked[0]!.answer([])
    expect([shown.month, asked[1]!.wanted.month]).toEqual(['2027-01', '2027-01'])
    await asked[1]!.answer(['2027-01-11'])
    shown.month = '2027-02'
    await nextTick()
    await asked[2]!.answer([])
    expect([shown.month, asked.length]).toEqual(['2027-02', 3])
  })

  it('stay where they are in the last month on offer', async () => {
    const { asked, shown } = begin()
    await asked[0]!.answer([], '2026-12')
    expect([shown.month, asked.length]).toEqual(['2026-12', 1])
  })

  it('say that they could not be read, and are read again', async () => {
    const { asked, shown } = begin()
    await asked[0]!.fail()
    expect([shown.error?.message, shown.busy]).toEqual(['no connection', false])
    void shown.again()
    await asked[1]!.answer(['2026-12-03'])
    expect([shown.error, shown.ofDay.length]).toEqual([null, 1])
  })

  it('are asked for once, though the first answer brings a length', async () => {
    const { asked, shown } = begin()
    await asked[0]!.answer(['2026-12-03'])
    expect([asked.length, shown.lengthMin]).toEqual([1, 30])
    shown.lengthMin = 60
    await nextTick()
    expect(asked[1]!.wanted.lengthMin).toBe(60)
  })
})
