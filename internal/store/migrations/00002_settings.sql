-- +goose Up
ALTER TABLE operator ADD COLUMN school TEXT NOT NULL DEFAULT 'encode first';
ALTER TABLE operator ADD COLUMN services TEXT NOT NULL DEFAULT '[]'; -- JSON: IDs of services used beside amateur radio
ALTER TABLE operator ADD COLUMN bands TEXT NOT NULL DEFAULT '[]';    -- JSON: names of permitted bands; empty for all
ALTER TABLE operator ADD COLUMN licence TEXT NOT NULL DEFAULT '';    -- what the operator wrote about it

-- Radio profiles that somebody made; those that ship are in the program.
CREATE TABLE profile (
  id       TEXT PRIMARY KEY,
  yaml     TEXT NOT NULL,
  saved_at TEXT NOT NULL
) STRICT;

-- +goose Down
DROP TABLE profile;
ALTER TABLE operator DROP COLUMN licence;
ALTER TABLE operator DROP COLUMN bands;
ALTER TABLE operator DROP COLUMN services;
ALTER TABLE operator DROP COLUMN school;
