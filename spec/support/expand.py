"""Reads an iCalendar object on standard input and prints the instants of its event, moved ones included, by python-icalendar and python-dateutil."""
import datetime
import json
import sys

from dateutil import rrule, tz
from icalendar import Calendar

event, *moved = Calendar.from_ical(sys.stdin.buffer.read()).walk("VEVENT")
start = event["DTSTART"].dt
zone = tz.gettz(event["DTSTART"].params["TZID"])
wall = start.replace(tzinfo=None)
dates = rrule.rruleset()
if "RRULE" in event:
    rule = event["RRULE"]
    until = rule.get("UNTIL")
    if until:  # dateutil wants it on the same wall as the start
        rule["UNTIL"] = [until[0].astimezone(zone).replace(tzinfo=None)]
    dates.rrule(rrule.rrulestr(rule.to_ical().decode().replace("Z", ""), dtstart=wall))
else:
    dates.rdate(wall)


def all_of(name):
    given = event.get(name, [])
    return [value.dt.replace(tzinfo=None) for one in (given if isinstance(given, list) else [given]) for value in one.dts]


for date in all_of("RDATE"):
    dates.rdate(date)
for date in all_of("EXDATE"):
    dates.exdate(date)
utc = datetime.timezone.utc
now = {part["RECURRENCE-ID"].dt.replace(tzinfo=None): part["DTSTART"].dt.replace(tzinfo=None) for part in moved}
print(json.dumps(sorted(now.get(date, date).replace(tzinfo=zone).astimezone(utc).strftime("%Y-%m-%dT%H:%M:%SZ") for date in dates)))
