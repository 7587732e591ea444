-- +goose Up
-- A row of a listing may be a channel to use and not a repeater: simplex, or to
-- listen to.
ALTER TABLE record ADD COLUMN kind TEXT NOT NULL DEFAULT '';
UPDATE record SET kind = 'simplex' WHERE input_hz = output_hz;

-- +goose Down
ALTER TABLE record DROP COLUMN kind;
