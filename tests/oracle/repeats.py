#!/usr/bin/env python3
"""Days of RRULEs by python3-dateutil: a line in, "START FROM TO RULE", a line of days out."""
import sys
from datetime import datetime

from dateutil.rrule import rrulestr

for line in sys.stdin:
    start, low, high, rule = line.rstrip("\n").split(" ", 3)
    days = rrulestr(rule, dtstart=datetime.fromisoformat(start)).between(datetime.fromisoformat(low), datetime.fromisoformat(high), inc=True)
    print(" ".join(day.date().isoformat() for day in days))
