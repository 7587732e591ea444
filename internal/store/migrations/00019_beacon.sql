-- +goose Up
-- An APRS station on a radio, as its person means it.
CREATE TABLE beacon (
  id      INTEGER PRIMARY KEY,
  load_id INTEGER NOT NULL UNIQUE REFERENCES load (id) DEFERRABLE INITIALLY DEFERRED,
  station TEXT    NOT NULL, -- JSON
  rev     INTEGER NOT NULL DEFAULT 0
) STRICT;

-- +goose Down
DROP TABLE beacon;
