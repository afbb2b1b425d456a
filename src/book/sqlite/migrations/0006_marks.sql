-- Readings that came by themselves may be doubted: the mark says why, empty says that they are not. A vessel's readings
-- over time are told by their index alone, without a look at each row: a logger leaves a million of them.

ALTER TABLE reading ADD COLUMN mark TEXT NOT NULL DEFAULT ''

DROP INDEX reading_by_vessel

CREATE INDEX reading_by_vessel ON reading (vessel_uid, quantity, at, value, mark, binned_at, import_uid)

CREATE INDEX reading_doubted ON reading (vessel_uid, quantity, at) WHERE mark <> ''

PRAGMA user_version = 6
