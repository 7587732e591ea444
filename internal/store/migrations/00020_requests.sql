-- +goose Up
-- The key of a request stands by itself, with a digest of what was asked for:
-- also a change that changes nothing took place.
CREATE TABLE request (
  key  TEXT NOT NULL PRIMARY KEY,
  hash TEXT NOT NULL, -- '' where an older version kept none
  at   TEXT NOT NULL
) STRICT, WITHOUT ROWID;
INSERT INTO request (key, hash, at) SELECT request, '', datetime('now') FROM journal WHERE request <> '';
DROP INDEX journal_request;
ALTER TABLE journal DROP COLUMN request;

-- +goose Down
ALTER TABLE journal ADD COLUMN request TEXT NOT NULL DEFAULT '';
CREATE UNIQUE INDEX journal_request ON journal (request) WHERE request <> '';
DROP TABLE request;
