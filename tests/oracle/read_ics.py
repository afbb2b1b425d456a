#!/usr/bin/env python3
"""A calendar file by python3-icalendar: a line an entry, its uid, first day, rule, days left out, replaced day, summary."""
import sys

from icalendar import Calendar

calendar = Calendar.from_ical(open(sys.argv[1], "rb").read())
assert calendar["VERSION"] == "2.0" and "PRODID" in calendar
for event in calendar.walk("VEVENT"):
    assert event["DTSTAMP"].dt.tzinfo is not None
    start, end = event["DTSTART"].dt, event["DTEND"].dt
    assert (end - start).days == 1, (start, end)
    rule = event["RRULE"].to_ical().decode() if "RRULE" in event else "-"
    left_out = event.get("EXDATE", [])
    left_out = left_out if isinstance(left_out, list) else [left_out]
    days = ",".join(day.dt.isoformat() for one in left_out for day in one.dts) or "-"
    instead = event["RECURRENCE-ID"].dt.isoformat() if "RECURRENCE-ID" in event else "-"
    print("|".join([str(event["UID"]), start.isoformat(), rule, days, instead, str(event["SUMMARY"]).replace("\n", "\\n")]))
