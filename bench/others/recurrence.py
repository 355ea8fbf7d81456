import datetime
import json
import sys
import time

from dateutil import rrule, tz

given = json.load(open(sys.argv[1]))
utc = datetime.timezone.utc
start_at = datetime.datetime.fromtimestamp(given["from"], utc)
end_at = datetime.datetime.fromtimestamp(given["to"], utc)
began = time.perf_counter()
count = total = 0
for one in given["rules"]:
    zone = tz.gettz(one["zone"])
    wall = datetime.datetime.fromisoformat(one["start"])
    day = datetime.timedelta(days=1)
    rule = rrule.rrulestr(one["rule"], dtstart=wall)
    for date in rule.between(start_at.replace(tzinfo=None) - day, end_at.replace(tzinfo=None) + day):
        instant = date.replace(tzinfo=zone).astimezone(utc)
        if start_at <= instant < end_at:
            count += 1
            total += int(instant.timestamp())
print(json.dumps({"seconds": time.perf_counter() - began, "count": count, "sum": total % 1_000_000_007}))
