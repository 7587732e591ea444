-- +goose Up
-- Who has no licence yet listens: nothing is keyed for them that transmits.
ALTER TABLE person ADD COLUMN unlicensed INTEGER NOT NULL DEFAULT 0;

-- +goose Down
ALTER TABLE person DROP COLUMN unlicensed;
