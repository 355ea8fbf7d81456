// Reads an iCalendar object on standard input and prints the instants of its event, moved ones included, by ical.js with the
// object's own VTIMEZONE.
import { createRequire } from 'node:module'
import { readFileSync } from 'node:fs'

const require = createRequire(new URL('../../web/package.json', import.meta.url))
const ICAL = require('ical.js')
const calendar = new ICAL.Component(ICAL.parse(readFileSync(0, 'utf8')))
calendar.getAllSubcomponents('vtimezone').forEach(zone => ICAL.TimezoneService.register(new ICAL.Timezone(zone)))
const [master, ...moved] = calendar.getAllSubcomponents('vevent')
const event = new ICAL.Event(master, { exceptions: moved.map(part => new ICAL.Event(part)) })
const say = time => time.toJSDate().toISOString().replace('.000', '')
const found = event.isRecurrenceException() ? [say(event.startDate)] : []
const dates = event.iterator()
for (let next = dates.next(); next && found.length < 500; next = dates.next()) found.push(say(event.getOccurrenceDetails(next).startDate))
console.log(JSON.stringify(found.sort()))
