-- +goose Up
-- How a radio scans, as its person sets it, and what they want to hear.
CREATE TABLE listening (
  id             INTEGER PRIMARY KEY,
  load_id        INTEGER NOT NULL UNIQUE REFERENCES load (id) DEFERRABLE INITIALLY DEFERRED,
  sets           TEXT    NOT NULL DEFAULT '[]', -- scan lists, one after another; none for all that is scanned
  timed_channels INTEGER NOT NULL DEFAULT 0,    -- so many channels in so many seconds, timed on the radio
  timed_seconds  REAL    NOT NULL DEFAULT 0,
  resume         TEXT    NOT NULL DEFAULT '',   -- '' for what the profile names first
  stay           REAL    NOT NULL DEFAULT -1,   -- seconds; -1 for the usual
  every          INTEGER NOT NULL DEFAULT 0,    -- a priority look after so many others; 0 for the usual
  watch_id       INTEGER NOT NULL DEFAULT 0,    -- the channel on the other side; 0 for none
  goal           TEXT    NOT NULL DEFAULT '',
  talk           TEXT    NOT NULL DEFAULT '{}', -- what people say is on a frequency: hertz -> overs an hour and seconds
  rev            INTEGER NOT NULL DEFAULT 0
) STRICT;

-- When somebody listened to a scan, and how much of the overs it heard then. What was
-- heard outlives the radio and the channel: it belongs to the frequency.
CREATE TABLE listened (
  id        INTEGER PRIMARY KEY,
  plan_id   INTEGER NOT NULL REFERENCES plan (id) DEFERRABLE INITIALLY DEFERRED,
  load_id   INTEGER NOT NULL,
  person_id INTEGER NOT NULL,
  began     TEXT    NOT NULL,
  ended     TEXT    NOT NULL DEFAULT '', -- '' while it goes on
  chances   TEXT    NOT NULL,            -- hertz -> 0 to 1
  rev       INTEGER NOT NULL DEFAULT 0
) STRICT;
CREATE INDEX listened_plan ON listened (plan_id);
CREATE TABLE heard (
  id          INTEGER PRIMARY KEY,
  plan_id     INTEGER NOT NULL REFERENCES plan (id) DEFERRABLE INITIALLY DEFERRED,
  listened_id INTEGER NOT NULL,
  receive_hz  INTEGER NOT NULL,
  person_id   INTEGER NOT NULL,
  at          TEXT    NOT NULL,
  rev         INTEGER NOT NULL DEFAULT 0
) STRICT;
CREATE INDEX heard_plan ON heard (plan_id, receive_hz);

-- +goose Down
DROP TABLE heard;
DROP TABLE listened;
DROP TABLE listening;
