"""Reads an iCalendar object on standard input by python-icalendar and prints what it says; see read.mjs."""
import json
import sys

from icalendar import Calendar

calendar = Calendar.from_ical(sys.stdin.buffer.read())


def listed(value):
    return value if isinstance(value, list) else [] if value is None else [value]


def said(part):
    recurrence = part.get("RECURRENCE-ID")
    return {
        "name": part.name, "uid": str(part["UID"]), "sequence": int(part["SEQUENCE"]) if "SEQUENCE" in part else None, "status": str(part["STATUS"]) if "STATUS" in part else None,
        "attendees": sorted([str(one), one.params.get("PARTSTAT")] for one in listed(part.get("ATTENDEE"))),
        "recurrence": recurrence and recurrence.dt.strftime("%Y-%m-%dT%H:%M:%S"),
    }


if calendar.walk("VEVENT") and any(part.errors for part in calendar.walk()):
    raise SystemExit(str([part.errors for part in calendar.walk() if part.errors]))
print(json.dumps({"method": str(calendar["METHOD"]), "parts": [said(part) for part in calendar.walk() if part.name in ("VEVENT", "VFREEBUSY")]}))
