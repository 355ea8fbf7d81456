import { createRequire } from 'node:module'
import { readFileSync } from 'node:fs'

const require = createRequire(new URL('../../web/package.json', import.meta.url))
const ICAL = require('ical.js')
const given = JSON.parse(readFileSync(process.argv[2], 'utf8'))

// ical.js has no zone data of its own; the offsets come from the platform, asked once for each zone and day.
const offsets = new Map()
function offset(zone, seconds) {
  const key = `${zone} ${Math.floor(seconds / 86400)}`
  if (!offsets.has(key)) {
    const wall = new Intl.DateTimeFormat('sv-SE', { timeZone: zone, dateStyle: 'short', timeStyle: 'medium' }).format(new Date(seconds * 1000))
    offsets.set(key, Date.parse(`${wall.replace(' ', 'T')}Z`) / 1000 - seconds)
  }
  return offsets.get(key)
}

const began = performance.now()
let count = 0
let sum = 0
for (const one of given.rules) {
  const dates = ICAL.Recur.fromString(one.rule).iterator(ICAL.Time.fromString(one.start))
  for (let next = dates.next(); next; next = dates.next()) {
    const wall = next.toUnixTime()
    const instant = wall - offset(one.zone, wall)
    if (instant >= given.to) break
    if (instant < given.from) continue
    count += 1
    sum += instant
  }
}
console.log(JSON.stringify({ seconds: (performance.now() - began) / 1000, count, sum: sum % 1_000_000_007 }))
