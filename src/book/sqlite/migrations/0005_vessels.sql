-- Kinds and quantities can grow: the program's registry knows them, not the schema. Readings belong to a vessel.

CREATE TABLE new_thing (
  id INTEGER PRIMARY KEY,
  uid TEXT NOT NULL UNIQUE CHECK (length(uid) > 0),
  kind TEXT NOT NULL CHECK (length(kind) > 0),
  name TEXT NOT NULL,
  crop TEXT NOT NULL DEFAULT '',
  body TEXT NOT NULL CHECK (json_valid(body)),
  changed_at INTEGER NOT NULL,
  binned_at INTEGER
) STRICT

INSERT INTO new_thing (id, uid, kind, name, crop, body, changed_at, binned_at)
SELECT id, uid, kind, name, crop, body, changed_at, binned_at FROM thing

DROP TABLE thing

ALTER TABLE new_thing RENAME TO thing

CREATE INDEX thing_by_kind ON thing (kind, name)

INSERT INTO thing (uid, kind, name, body, changed_at)
SELECT 'vessel-' || lower(hex(tank)), 'vessel', tank, json_object('name', tank), max(at)
FROM reading GROUP BY tank

INSERT INTO find_thing (rowid, words)
SELECT id, name || ' ' || crop || ' ' || kind FROM thing WHERE kind = 'vessel'

CREATE TABLE new_reading (
  id INTEGER PRIMARY KEY,
  vessel_uid TEXT NOT NULL REFERENCES thing (uid) ON DELETE RESTRICT,
  quantity TEXT NOT NULL CHECK (length(quantity) > 0),
  at INTEGER NOT NULL,
  value REAL NOT NULL,
  typed TEXT NOT NULL,
  import_uid TEXT REFERENCES thing (uid) ON DELETE RESTRICT,
  binned_at INTEGER
) STRICT

INSERT INTO new_reading (id, vessel_uid, quantity, at, value, typed, import_uid, binned_at)
SELECT id, (SELECT uid FROM thing WHERE kind = 'vessel' AND name = tank), quantity, at, value, typed, import_uid, binned_at
FROM reading

DROP TABLE reading

ALTER TABLE new_reading RENAME TO reading

CREATE INDEX reading_by_time ON reading (at, id)

CREATE INDEX reading_by_vessel ON reading (vessel_uid, quantity, at)

UPDATE step SET changes = json_remove(json_set(changes, '$[0].after.body.vessel',
  (SELECT uid FROM thing WHERE kind = 'vessel' AND name = json_extract(changes, '$[0].after.body.tank'))),
  '$[0].after.body.tank')
WHERE json_extract(changes, '$[0].kind') = 'reading' AND json_type(changes, '$[0].after.body.tank') IS NOT NULL

PRAGMA user_version = 5
