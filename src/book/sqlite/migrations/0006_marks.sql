-- Readings that came by themselves may be doubted: the mark says why, empty says that they are not.

ALTER TABLE reading ADD COLUMN mark TEXT NOT NULL DEFAULT ''

PRAGMA user_version = 6
