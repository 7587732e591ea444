-- +goose Up
-- Columns that somebody defined for a tool of theirs.
CREATE TABLE template (
  id   INTEGER PRIMARY KEY,
  name TEXT NOT NULL UNIQUE,
  body TEXT NOT NULL, -- JSON
  rev  INTEGER NOT NULL DEFAULT 0
) STRICT;

-- +goose Down
DROP TABLE template;
