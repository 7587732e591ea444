-- +goose Up
CREATE TABLE operator (
  id        INTEGER PRIMARY KEY CHECK (id = 1),
  person    TEXT NOT NULL,
  region    TEXT NOT NULL,
  lat       REAL,
  lon       REAL,
  height_m  REAL NOT NULL,
  radius_km REAL NOT NULL
) STRICT;

CREATE TABLE plan (
  id       INTEGER PRIMARY KEY,
  name     TEXT NOT NULL,
  revision INTEGER NOT NULL,
  saved_at TEXT NOT NULL
) STRICT;

CREATE TABLE channel (
  id            INTEGER PRIMARY KEY AUTOINCREMENT,
  plan_id       INTEGER NOT NULL REFERENCES plan (id),
  name          TEXT NOT NULL,
  receive_hz    INTEGER NOT NULL,
  transmit_kind TEXT NOT NULL CHECK (transmit_kind IN ('simplex', 'shift', 'split', 'none')),
  offset_hz     INTEGER NOT NULL,
  split_hz      INTEGER NOT NULL,
  transmit_tone TEXT NOT NULL,
  receive_tone  TEXT NOT NULL,
  bandwidth     TEXT NOT NULL,
  power         TEXT NOT NULL
) STRICT;
CREATE INDEX channel_plan ON channel (plan_id);

-- What one radio gets of a plan.
CREATE TABLE load (
  id      INTEGER PRIMARY KEY,
  plan_id INTEGER NOT NULL REFERENCES plan (id),
  radio   TEXT NOT NULL
) STRICT;

CREATE TABLE entry (
  id         INTEGER PRIMARY KEY AUTOINCREMENT,
  load_id    INTEGER NOT NULL REFERENCES load (id),
  slot       INTEGER NOT NULL,
  channel_id INTEGER NOT NULL REFERENCES channel (id) DEFERRABLE INITIALLY DEFERRED,
  short_name TEXT NOT NULL,
  scan       TEXT NOT NULL,
  UNIQUE (load_id, slot)
) STRICT;
CREATE INDEX entry_channel ON entry (channel_id);

-- Every change of a plan, with the rows as they were before and after.
CREATE TABLE journal (
  id      INTEGER PRIMARY KEY,
  plan_id INTEGER NOT NULL REFERENCES plan (id),
  person  TEXT NOT NULL,
  kind    TEXT NOT NULL CHECK (kind IN ('do', 'undo', 'redo')),
  target  INTEGER REFERENCES journal (id), -- the change that is undone or redone
  label   TEXT NOT NULL,
  at      TEXT NOT NULL,
  changes TEXT NOT NULL
) STRICT;
CREATE INDEX journal_plan ON journal (plan_id, person, id);

-- Published statements. An edition is invisible until it is active.
CREATE TABLE edition (
  id          INTEGER PRIMARY KEY,
  source      TEXT NOT NULL,
  imported_at TEXT NOT NULL,
  active      INTEGER NOT NULL
) STRICT;

CREATE TABLE record (
  edition_id    INTEGER NOT NULL REFERENCES edition (id),
  key           TEXT NOT NULL,
  callsign      TEXT NOT NULL,
  output_hz     INTEGER NOT NULL,
  input_hz      INTEGER NOT NULL,
  uplink_tone   TEXT, -- NULL unknown, 'none', or a tone
  downlink_tone TEXT,
  mode          TEXT NOT NULL,
  width         TEXT NOT NULL,
  locality      TEXT NOT NULL,
  lat           REAL,
  lon           REAL,
  height_m      REAL,
  status        TEXT NOT NULL,
  access        TEXT NOT NULL,
  updated       TEXT NOT NULL,
  source        TEXT NOT NULL,
  PRIMARY KEY (edition_id, key)
) STRICT, WITHOUT ROWID;
CREATE INDEX record_output ON record (output_hz, lat);
CREATE INDEX record_input ON record (input_hz, lat);

-- +goose Down
DROP TABLE record;
DROP TABLE edition;
DROP TABLE journal;
DROP TABLE entry;
DROP TABLE load;
DROP TABLE channel;
DROP TABLE plan;
DROP TABLE operator;
