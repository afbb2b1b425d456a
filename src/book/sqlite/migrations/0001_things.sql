-- Things that are typed, their versions, and every step that a person took. One paragraph is one statement.

CREATE TABLE meta (
  key TEXT PRIMARY KEY,
  value TEXT NOT NULL
) STRICT, WITHOUT ROWID

CREATE TABLE thing (
  id INTEGER PRIMARY KEY,
  uid TEXT NOT NULL UNIQUE CHECK (length(uid) > 0),
  kind TEXT NOT NULL CHECK (kind IN ('water', 'product', 'target', 'formula', 'stock_plan', 'reading_import')),
  name TEXT NOT NULL,
  crop TEXT NOT NULL DEFAULT '',
  body TEXT NOT NULL CHECK (json_valid(body)),
  changed_at INTEGER NOT NULL,
  binned_at INTEGER
) STRICT

CREATE INDEX thing_by_kind ON thing (kind, name)

CREATE TABLE version (
  id INTEGER PRIMARY KEY,
  thing_uid TEXT NOT NULL REFERENCES thing (uid) ON DELETE RESTRICT,
  number INTEGER NOT NULL CHECK (number > 0),
  at INTEGER NOT NULL,
  who TEXT NOT NULL,
  why TEXT NOT NULL CHECK (why IN ('used', 'printed', 'named', 'brought in', 'gone back')),
  name TEXT NOT NULL DEFAULT '',
  words TEXT NOT NULL DEFAULT '',
  body TEXT NOT NULL CHECK (json_valid(body)),
  UNIQUE (thing_uid, number)
) STRICT

CREATE TABLE step (
  id INTEGER PRIMARY KEY AUTOINCREMENT,
  at INTEGER NOT NULL,
  who TEXT NOT NULL,
  words TEXT NOT NULL,
  merge_key TEXT NOT NULL DEFAULT '',
  undone INTEGER NOT NULL DEFAULT 0 CHECK (undone IN (0, 1)),
  changes TEXT NOT NULL CHECK (json_valid(changes))
) STRICT

CREATE INDEX step_undone ON step (undone, id)

PRAGMA application_id = 1114915435

PRAGMA user_version = 1
