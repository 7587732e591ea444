-- +goose Up
-- What a person decided about a row that could not be read: later, or never.
ALTER TABLE reject ADD COLUMN state TEXT NOT NULL DEFAULT '';

-- What was made of such a row, so that it need not be done again when the same
-- row comes with a newer edition. cells is NULL for a row that is discarded.
CREATE TABLE mended (
	source TEXT NOT NULL,
	was    TEXT NOT NULL, -- the cells as they came, JSON
	cells  TEXT,
	PRIMARY KEY (source, was)
) STRICT;

-- +goose Down
DROP TABLE mended;
ALTER TABLE reject DROP COLUMN state;
