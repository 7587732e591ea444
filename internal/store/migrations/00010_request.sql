-- +goose Up
-- A change is asked for under a key, so that one whose answer was lost can be
-- asked for again and takes place once.
ALTER TABLE journal ADD COLUMN request TEXT NOT NULL DEFAULT '';
CREATE UNIQUE INDEX journal_request ON journal (request) WHERE request <> '';

-- +goose Down
DROP INDEX journal_request;
ALTER TABLE journal DROP COLUMN request;
