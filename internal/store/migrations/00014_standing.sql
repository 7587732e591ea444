-- +goose Up
-- How far a channel has come into a radio, and what the radio was to hold then.
CREATE TABLE standing (
  id          INTEGER PRIMARY KEY,
  load_id     INTEGER NOT NULL REFERENCES load (id) DEFERRABLE INITIALLY DEFERRED,
  channel_id  INTEGER NOT NULL REFERENCES channel (id) DEFERRABLE INITIALLY DEFERRED,
  state       TEXT NOT NULL,
  fingerprint TEXT NOT NULL,
  person_id   INTEGER NOT NULL, -- 0 for nobody
  at          TEXT NOT NULL,
  rev         INTEGER NOT NULL DEFAULT 0,
  UNIQUE (load_id, channel_id)
) STRICT;
CREATE INDEX standing_channel ON standing (channel_id);

-- +goose Down
DROP TABLE standing;
