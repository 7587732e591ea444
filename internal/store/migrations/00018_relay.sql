-- +goose Up
-- A cross-band relay on a vehicle unit, as its person means it.
CREATE TABLE relay (
  id           INTEGER PRIMARY KEY,
  load_id      INTEGER NOT NULL UNIQUE REFERENCES load (id) DEFERRABLE INITIALLY DEFERRED,
  hand_id      INTEGER NOT NULL DEFAULT 0,  -- the load of the handheld; 0 for nobody said which
  line_a       TEXT    NOT NULL DEFAULT '', -- the sides, as entry lines
  line_b       TEXT    NOT NULL DEFAULT '',
  way          TEXT    NOT NULL DEFAULT 'both',
  consent      TEXT    NOT NULL DEFAULT '', -- what the owners of two repeaters said
  identify_a   TEXT    NOT NULL DEFAULT '',
  identify_b   TEXT    NOT NULL DEFAULT '',
  control      TEXT    NOT NULL DEFAULT '', -- how it is shut off
  microphone   TEXT    NOT NULL DEFAULT '', -- live, dead; empty for not known
  timeout      INTEGER NOT NULL DEFAULT -1, -- minutes; -1 for that of the profile
  mine         INTEGER NOT NULL DEFAULT 8,  -- overs in ten minutes
  theirs       INTEGER NOT NULL DEFAULT 12,
  over_s       REAL    NOT NULL DEFAULT 15,
  amp_hours    REAL    NOT NULL DEFAULT 0,
  usable       REAL    NOT NULL DEFAULT 0.5,
  starting     INTEGER NOT NULL DEFAULT 0,
  hours        REAL    NOT NULL DEFAULT 0,
  standby_a    REAL    NOT NULL DEFAULT 0,
  amps_a       REAL    NOT NULL DEFAULT 0,
  amps_b       REAL    NOT NULL DEFAULT 0,
  gain_dbi     REAL    NOT NULL DEFAULT 3,
  ticks        TEXT    NOT NULL DEFAULT '{}', -- line of the run card -> when
  rehearsed_at TEXT    NOT NULL DEFAULT '',
  rehearsed_by INTEGER NOT NULL DEFAULT 0,
  rehearsed_as TEXT    NOT NULL DEFAULT '', -- of what: another set-up is not rehearsed
  rev          INTEGER NOT NULL DEFAULT 0
) STRICT;

-- +goose Down
DROP TABLE relay;
