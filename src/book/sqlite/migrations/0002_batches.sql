-- Batches that were mixed: what was planned, what was weighed, what the meters said, the sheet as printed.

CREATE TABLE sheet (
  id INTEGER PRIMARY KEY,
  sha256 TEXT NOT NULL UNIQUE CHECK (length(sha256) = 64),
  html_zlib BLOB NOT NULL
) STRICT

CREATE TABLE batch (
  id INTEGER PRIMARY KEY,
  uid TEXT NOT NULL UNIQUE CHECK (length(uid) > 0),
  at INTEGER NOT NULL,
  formula_uid TEXT NOT NULL,
  formula_version INTEGER NOT NULL CHECK (formula_version >= 0),
  formula_name TEXT NOT NULL,
  crop TEXT NOT NULL DEFAULT '',
  water_name TEXT NOT NULL DEFAULT '',
  litres REAL NOT NULL CHECK (litres > 0),
  ec_planned REAL CHECK (ec_planned >= 0),
  ph_planned REAL CHECK (ph_planned BETWEEN 0 AND 14),
  ec_read REAL CHECK (ec_read >= 0),
  ec_typed TEXT,
  ph_read REAL CHECK (ph_read BETWEEN 0 AND 14),
  ph_typed TEXT,
  who TEXT NOT NULL DEFAULT '',
  note TEXT NOT NULL DEFAULT '',
  sheet_id INTEGER REFERENCES sheet (id) ON DELETE RESTRICT,
  worst_deviation REAL CHECK (worst_deviation >= 0),
  changed_at INTEGER NOT NULL,
  binned_at INTEGER
) STRICT

CREATE INDEX batch_by_time ON batch (at, id)

CREATE INDEX batch_by_formula ON batch (formula_uid, at)

CREATE TABLE batch_weight (
  batch_id INTEGER NOT NULL REFERENCES batch (id) ON DELETE CASCADE,
  position INTEGER NOT NULL CHECK (position >= 0),
  product_id TEXT NOT NULL,
  product_name TEXT NOT NULL,
  tank TEXT NOT NULL DEFAULT '',
  planned_g REAL NOT NULL CHECK (planned_g >= 0),
  actual_g REAL CHECK (actual_g >= 0),
  actual_amount TEXT,
  actual_unit TEXT,
  lot TEXT NOT NULL DEFAULT '',
  PRIMARY KEY (batch_id, position)
) STRICT, WITHOUT ROWID

CREATE INDEX batch_weight_by_lot ON batch_weight (lot) WHERE lot <> ''

PRAGMA user_version = 2
