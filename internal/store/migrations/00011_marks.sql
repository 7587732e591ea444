-- +goose Up
-- Places that people name, to look around from.
ALTER TABLE plan ADD COLUMN marks TEXT NOT NULL DEFAULT '';

-- +goose Down
ALTER TABLE plan DROP COLUMN marks;
