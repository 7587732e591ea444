-- +goose Up
-- The number of an edition is never used again: an import that is still being
-- written must not share one with an edition that was removed meanwhile.
CREATE TABLE edition_serial (
	id   INTEGER PRIMARY KEY CHECK (id = 1),
	next INTEGER NOT NULL
) STRICT;

INSERT INTO edition_serial (id, next)
SELECT 1, coalesce(max(id), 0) + 1 FROM edition;

-- +goose Down
DROP TABLE edition_serial;
