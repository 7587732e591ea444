-- +goose Up
-- What a person calls himself on the air; every test begins and ends with it.
ALTER TABLE person ADD COLUMN callsign TEXT NOT NULL DEFAULT '';

-- A try on the air, or something that was found out without keying: what was set, where,
-- and what came back. It outlives the channel and the radio.
CREATE TABLE attempt (
  id          INTEGER PRIMARY KEY,
  plan_id     INTEGER NOT NULL REFERENCES plan (id) DEFERRABLE INITIALLY DEFERRED,
  load_id     INTEGER NOT NULL,
  channel_id  INTEGER NOT NULL,
  person_id   INTEGER NOT NULL,
  at          TEXT    NOT NULL,
  kind        TEXT    NOT NULL, -- key, listen, look, ask
  answer      TEXT    NOT NULL, -- of key: nothing, weak, tail, ident, reply
  yes         INTEGER NOT NULL, -- of the others: it is heard; no tone is sent
  negative    INTEGER NOT NULL, -- it was to fail: a filter is proven by that alone
  slot        INTEGER NOT NULL,
  name        TEXT    NOT NULL,
  receive_hz  INTEGER NOT NULL,
  offset_hz   INTEGER NOT NULL,
  tone_out    TEXT    NOT NULL,
  tone_in     TEXT    NOT NULL,
  width       TEXT    NOT NULL,
  power       TEXT    NOT NULL, -- low, mid, high
  watts       REAL    NOT NULL,
  power_set   INTEGER NOT NULL, -- it was looked at and set high again
  mode_seen   INTEGER NOT NULL, -- the display was seen to show the mark of a tone
  place       TEXT    NOT NULL, -- indoors, vehicle, open, high
  spot        TEXT    NOT NULL, -- in one's own words
  aerial      TEXT    NOT NULL,
  callsign    TEXT    NOT NULL, -- one's own
  station     TEXT    NOT NULL, -- who answered
  note        TEXT    NOT NULL,
  rev         INTEGER NOT NULL DEFAULT 0
) STRICT;
CREATE INDEX attempt_plan ON attempt (plan_id, at);

-- What the owner of a closed repeater said.
CREATE TABLE permission (
  id         INTEGER PRIMARY KEY,
  plan_id    INTEGER NOT NULL REFERENCES plan (id) DEFERRABLE INITIALLY DEFERRED,
  receive_hz INTEGER NOT NULL,
  note       TEXT    NOT NULL,
  person_id  INTEGER NOT NULL,
  at         TEXT    NOT NULL,
  rev        INTEGER NOT NULL DEFAULT 0,
  UNIQUE (plan_id, receive_hz)
) STRICT;

-- +goose Down
DROP TABLE permission;
DROP TABLE attempt;
ALTER TABLE person DROP COLUMN callsign;
