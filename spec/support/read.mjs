// Reads an iCalendar object on standard input by ical.js and prints what it says: method, and of each event or free/busy its
// name, UID, sequence, status, attendees with PARTSTAT, and those properties that ical.js finds against its design of RFC 5545.
import { createRequire } from 'node:module'
import { readFileSync } from 'node:fs'

const require = createRequire(new URL('../../web/package.json', import.meta.url))
const ICAL = require('ical.js')
const calendar = new ICAL.Component(ICAL.parse(readFileSync(0, 'utf8')))
const parts = [...calendar.getAllSubcomponents('vevent'), ...calendar.getAllSubcomponents('vfreebusy')].map(part => ({
  name: part.name.toUpperCase(), uid: part.getFirstPropertyValue('uid'), sequence: part.getFirstPropertyValue('sequence') ?? null, status: part.getFirstPropertyValue('status') ?? null,
  attendees: part.getAllProperties('attendee').map(one => [one.getFirstValue(), one.getParameter('partstat') ?? null]).sort(),
  recurrence: part.getFirstProperty('recurrence-id')?.getFirstValue().toString().replace(/Z$/, '') ?? null,
}))
console.log(JSON.stringify({ method: calendar.getFirstPropertyValue('method'), parts }))
