-- +goose Up
-- Where a search for a tone sat: on the input of a repeater, or on its output. Empty for
-- every other line of the log.
ALTER TABLE attempt ADD COLUMN side TEXT NOT NULL DEFAULT '';

-- +goose Down
ALTER TABLE attempt DROP COLUMN side;
