-- Readings of tanks over time, typed in or imported. value is in the quantity's own unit: ec mS/cm at 25 degC,
-- ph, level L, temperature degC; typed keeps the digits and the unit that a person gave.

CREATE TABLE reading (
  id INTEGER PRIMARY KEY,
  tank TEXT NOT NULL,
  quantity TEXT NOT NULL CHECK (quantity IN ('ec', 'ph', 'level', 'temperature')),
  at INTEGER NOT NULL,
  value REAL NOT NULL,
  typed TEXT NOT NULL,
  import_uid TEXT REFERENCES thing (uid) ON DELETE RESTRICT,
  binned_at INTEGER
) STRICT

CREATE INDEX reading_by_time ON reading (at, id)

CREATE INDEX reading_by_tank ON reading (tank, quantity, at)

PRAGMA user_version = 3
