-- The words that Ctrl+K looks through. Rebuilt from the records; nothing is kept here alone.

CREATE VIRTUAL TABLE find_thing USING fts5 (words, tokenize = 'unicode61 remove_diacritics 2', prefix = '2 3')

CREATE VIRTUAL TABLE find_batch USING fts5 (words, tokenize = 'unicode61 remove_diacritics 2', prefix = '2 3')

INSERT INTO find_thing (rowid, words)
SELECT id, name || ' ' || crop || ' ' || kind FROM thing

INSERT INTO find_batch (rowid, words)
SELECT id, formula_name || ' ' || crop || ' ' || water_name || ' ' || who || ' ' || note || ' ' ||
  strftime('%Y-%m-%d', at, 'unixepoch') || ' ' ||
  coalesce((SELECT group_concat(lot, ' ') FROM batch_weight WHERE batch_id = batch.id), '')
FROM batch

PRAGMA user_version = 4
