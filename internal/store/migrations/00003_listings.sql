-- +goose Up
-- Records get a number of their own, for the tree of places, and a note.
CREATE TABLE record_new (
  id            INTEGER PRIMARY KEY,
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
  note          TEXT NOT NULL DEFAULT ''
) STRICT;
INSERT INTO record_new (edition_id, key, callsign, output_hz, input_hz, uplink_tone, downlink_tone, mode, width, locality, lat, lon, height_m, status, access, updated, source)
  SELECT edition_id, key, callsign, output_hz, input_hz, uplink_tone, downlink_tone, mode, width, locality, lat, lon, height_m, status, access, updated, source FROM record;
DROP TABLE record;
ALTER TABLE record_new RENAME TO record;
CREATE UNIQUE INDEX record_key ON record (edition_id, key);
CREATE INDEX record_output ON record (output_hz, lat);
CREATE INDEX record_input ON record (input_hz, lat);

-- Where the records are, for searches around a place.
CREATE VIRTUAL TABLE record_place USING rtree (id, south, north, west, east);
INSERT INTO record_place SELECT id, lat, lat, lon, lon FROM record WHERE lat IS NOT NULL;
-- +goose StatementBegin
CREATE TRIGGER record_placed AFTER INSERT ON record WHEN NEW.lat IS NOT NULL BEGIN
  INSERT INTO record_place VALUES (NEW.id, NEW.lat, NEW.lat, NEW.lon, NEW.lon);
END;
-- +goose StatementEnd
-- +goose StatementBegin
CREATE TRIGGER record_gone AFTER DELETE ON record WHEN OLD.lat IS NOT NULL BEGIN
  DELETE FROM record_place WHERE id = OLD.id;
END;
-- +goose StatementEnd

-- Rows of a listing that could not be read, kept to be mended.
CREATE TABLE reject (
  id         INTEGER PRIMARY KEY,
  edition_id INTEGER NOT NULL REFERENCES edition (id),
  line       INTEGER NOT NULL, -- in the file
  cells      TEXT NOT NULL,    -- JSON
  faults     TEXT NOT NULL     -- JSON
) STRICT;
CREATE INDEX reject_edition ON reject (edition_id, line);

ALTER TABLE edition ADD COLUMN file TEXT NOT NULL DEFAULT '';
ALTER TABLE edition ADD COLUMN records INTEGER NOT NULL DEFAULT 0;
ALTER TABLE edition ADD COLUMN heading TEXT NOT NULL DEFAULT '[]'; -- JSON: the names of the columns, for the rejects
ALTER TABLE edition ADD COLUMN mapping TEXT NOT NULL DEFAULT '[]'; -- JSON: how they were read
UPDATE edition SET records = (SELECT count(*) FROM record WHERE edition_id = edition.id);

-- How a table with these headings was read the last time.
CREATE TABLE mapping (
  heading TEXT PRIMARY KEY, -- JSON
  source  TEXT NOT NULL,
  columns TEXT NOT NULL     -- JSON
) STRICT;

-- What people decided about two statements: they speak of one repeater, or of
-- two. A statement is named by its source and key, which outlive an edition.
CREATE TABLE joining (
  a_source TEXT NOT NULL,
  a_key    TEXT NOT NULL,
  b_source TEXT NOT NULL,
  b_key    TEXT NOT NULL,
  same     INTEGER NOT NULL,
  person   TEXT NOT NULL,
  at       TEXT NOT NULL,
  PRIMARY KEY (a_source, a_key, b_source, b_key)
) STRICT;

-- What people know better than a statement, field by field. It holds as long
-- as the statement says what it said then.
CREATE TABLE correction (
  source  TEXT NOT NULL,
  key     TEXT NOT NULL,
  field   TEXT NOT NULL,
  value   TEXT NOT NULL,
  against TEXT NOT NULL, -- what the statement said; '' for nothing
  note    TEXT NOT NULL,
  person  TEXT NOT NULL,
  at      TEXT NOT NULL,
  PRIMARY KEY (source, key, field)
) STRICT;

-- Coasts and borders that are drawn on the map beside those of the world,
-- as GeoJSON feature collections.
CREATE TABLE outline (
  name    TEXT PRIMARY KEY,
  geojson TEXT NOT NULL
) STRICT;

-- +goose Down
DROP TABLE outline;
DROP TABLE correction;
DROP TABLE joining;
DROP TABLE mapping;
DROP TABLE reject;
ALTER TABLE edition DROP COLUMN mapping;
ALTER TABLE edition DROP COLUMN heading;
ALTER TABLE edition DROP COLUMN records;
ALTER TABLE edition DROP COLUMN file;
DROP TRIGGER record_gone;
DROP TRIGGER record_placed;
DROP TABLE record_place;
CREATE TABLE record_old (
  edition_id    INTEGER NOT NULL REFERENCES edition (id),
  key           TEXT NOT NULL,
  callsign      TEXT NOT NULL,
  output_hz     INTEGER NOT NULL,
  input_hz      INTEGER NOT NULL,
  uplink_tone   TEXT,
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
INSERT INTO record_old SELECT edition_id, key, callsign, output_hz, input_hz, uplink_tone, downlink_tone, mode, width, locality, lat, lon, height_m, status, access, updated, source FROM record;
DROP TABLE record;
ALTER TABLE record_old RENAME TO record;
CREATE INDEX record_output ON record (output_hz, lat);
CREATE INDEX record_input ON record (input_hz, lat);
