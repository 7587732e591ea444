-- +goose Up
-- People have numbers: who changes their name keeps what they did. The licence
-- is a person's.
CREATE TABLE person (
  id       INTEGER PRIMARY KEY,
  name     TEXT NOT NULL,
  colour   TEXT NOT NULL DEFAULT '',
  licence  TEXT NOT NULL DEFAULT '',   -- what the person wrote about it
  services TEXT NOT NULL DEFAULT '[]', -- JSON: IDs of services used beside amateur radio
  bands    TEXT NOT NULL DEFAULT '[]', -- JSON: names of permitted bands; empty for all
  rev      INTEGER NOT NULL DEFAULT 0  -- the change in which the row got what it holds
) STRICT;
INSERT INTO person (name, licence, services, bands) SELECT person, licence, services, bands FROM operator;
INSERT INTO person (name) SELECT DISTINCT person FROM journal WHERE person <> 'demonstration' AND person NOT IN (SELECT name FROM person) ORDER BY person;
INSERT INTO person (name) SELECT DISTINCT person FROM (SELECT person FROM joining UNION SELECT person FROM correction) WHERE person NOT IN (SELECT name FROM person) ORDER BY person;

-- The place and the region are a plan's.
ALTER TABLE plan ADD COLUMN season TEXT NOT NULL DEFAULT '';
ALTER TABLE plan ADD COLUMN archived INTEGER NOT NULL DEFAULT 0;
ALTER TABLE plan ADD COLUMN demo INTEGER NOT NULL DEFAULT 0; -- a demonstration, with listings of its own
ALTER TABLE plan ADD COLUMN region TEXT NOT NULL DEFAULT '';
ALTER TABLE plan ADD COLUMN lat REAL;
ALTER TABLE plan ADD COLUMN lon REAL;
ALTER TABLE plan ADD COLUMN height_m REAL NOT NULL DEFAULT 1.5;
ALTER TABLE plan ADD COLUMN radius_km REAL NOT NULL DEFAULT 150;
ALTER TABLE plan ADD COLUMN tone_policy TEXT NOT NULL DEFAULT 'encode first';
ALTER TABLE plan ADD COLUMN rev INTEGER NOT NULL DEFAULT 0;
UPDATE plan SET region = o.region, lat = o.lat, lon = o.lon, height_m = o.height_m, radius_km = o.radius_km, tone_policy = o.school FROM operator AS o;

-- A radio is one that can be held in the hand. Two of them may be of one kind.
CREATE TABLE unit (
  id      INTEGER PRIMARY KEY,
  name    TEXT NOT NULL DEFAULT '', -- '' for the name of the profile
  profile TEXT NOT NULL,
  holder  INTEGER REFERENCES person (id) DEFERRABLE INITIALLY DEFERRED,
  rev     INTEGER NOT NULL DEFAULT 0
) STRICT;
INSERT INTO unit (profile) SELECT radio FROM load GROUP BY radio ORDER BY min(id);
ALTER TABLE load ADD COLUMN unit_id INTEGER REFERENCES unit (id) DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE load ADD COLUMN rev INTEGER NOT NULL DEFAULT 0;
UPDATE load SET unit_id = (SELECT id FROM unit WHERE profile = radio);
ALTER TABLE load DROP COLUMN radio;
CREATE UNIQUE INDEX load_unit ON load (plan_id, unit_id);
CREATE INDEX load_of ON load (unit_id);

-- A channel may be that of a published repeater.
ALTER TABLE channel ADD COLUMN repeater_source TEXT NOT NULL DEFAULT '';
ALTER TABLE channel ADD COLUMN repeater_key TEXT NOT NULL DEFAULT '';
ALTER TABLE channel ADD COLUMN rev INTEGER NOT NULL DEFAULT 0;

-- Slots have kinds: '' is a numbered one.
CREATE TABLE entry_new (
  id         INTEGER PRIMARY KEY,
  load_id    INTEGER NOT NULL REFERENCES load (id) DEFERRABLE INITIALLY DEFERRED,
  kind       TEXT NOT NULL DEFAULT '' CHECK (kind IN ('', 'call', 'home')),
  slot       INTEGER NOT NULL,
  channel_id INTEGER NOT NULL REFERENCES channel (id) DEFERRABLE INITIALLY DEFERRED,
  short_name TEXT NOT NULL,
  scan       TEXT NOT NULL,
  rev        INTEGER NOT NULL DEFAULT 0,
  UNIQUE (load_id, kind, slot)
) STRICT;
INSERT INTO entry_new (id, load_id, slot, channel_id, short_name, scan) SELECT id, load_id, slot, channel_id, short_name, scan FROM entry;
-- Numbers of rows are never used again: the journal may bring one back.
CREATE TABLE serial (
  name TEXT PRIMARY KEY,
  last INTEGER NOT NULL
) STRICT;
INSERT INTO serial (name, last) SELECT t.name, max(
    coalesce((SELECT seq FROM sqlite_sequence WHERE name = t.name), 0),
    coalesce((SELECT max(c.value ->> 'id') FROM journal, json_each(journal.changes) AS c WHERE c.value ->> 'table' = t.name), 0),
    CASE t.name WHEN 'plan' THEN (SELECT coalesce(max(id), 0) FROM plan) WHEN 'load' THEN (SELECT coalesce(max(id), 0) FROM load)
      WHEN 'unit' THEN (SELECT coalesce(max(id), 0) FROM unit) WHEN 'person' THEN (SELECT coalesce(max(id), 0) FROM person) ELSE 0 END)
  FROM (SELECT 'person' AS name UNION ALL SELECT 'plan' UNION ALL SELECT 'unit' UNION ALL SELECT 'load' UNION ALL SELECT 'channel' UNION ALL SELECT 'entry') AS t;
DROP TABLE entry;
ALTER TABLE entry_new RENAME TO entry;
CREATE INDEX entry_channel ON entry (channel_id);

-- The number that everybody uses for a channel, on every radio that can.
CREATE TABLE team_slot (
  id         INTEGER PRIMARY KEY,
  plan_id    INTEGER NOT NULL REFERENCES plan (id) DEFERRABLE INITIALLY DEFERRED,
  number     INTEGER NOT NULL,
  channel_id INTEGER NOT NULL UNIQUE REFERENCES channel (id) DEFERRABLE INITIALLY DEFERRED,
  rev        INTEGER NOT NULL DEFAULT 0,
  UNIQUE (plan_id, number)
) STRICT;
INSERT OR IGNORE INTO team_slot (plan_id, number, channel_id)
  SELECT load.plan_id, entry.slot, entry.channel_id FROM entry JOIN load ON load.id = entry.load_id ORDER BY load.id, entry.slot;
INSERT INTO serial (name, last) SELECT 'team_slot', coalesce(max(id), 0) FROM team_slot;

CREATE TABLE profile_new (
  id       INTEGER PRIMARY KEY,
  slug     TEXT NOT NULL UNIQUE, -- what a person and a unit call it by
  yaml     TEXT NOT NULL,
  saved_at TEXT NOT NULL,
  rev      INTEGER NOT NULL DEFAULT 0
) STRICT;
INSERT INTO profile_new (slug, yaml, saved_at) SELECT id, yaml, saved_at FROM profile ORDER BY id;
DROP TABLE profile;
ALTER TABLE profile_new RENAME TO profile;
INSERT INTO serial (name, last) SELECT 'profile', coalesce(max(id), 0) FROM profile;

CREATE TABLE decision (
  id        INTEGER PRIMARY KEY,
  a_source  TEXT NOT NULL,
  a_key     TEXT NOT NULL,
  b_source  TEXT NOT NULL,
  b_key     TEXT NOT NULL,
  same      INTEGER NOT NULL,
  person_id INTEGER NOT NULL, -- 0 for nobody
  at        TEXT NOT NULL,
  rev       INTEGER NOT NULL DEFAULT 0,
  UNIQUE (a_source, a_key, b_source, b_key)
) STRICT;
INSERT INTO decision (a_source, a_key, b_source, b_key, same, person_id, at)
  SELECT a_source, a_key, b_source, b_key, same, (SELECT min(id) FROM person WHERE name = person), at FROM joining ORDER BY a_source, a_key, b_source, b_key;
DROP TABLE joining;
INSERT INTO serial (name, last) SELECT 'decision', coalesce(max(id), 0) FROM decision;

CREATE TABLE correction_new (
  id        INTEGER PRIMARY KEY,
  source    TEXT NOT NULL,
  key       TEXT NOT NULL,
  field     TEXT NOT NULL,
  value     TEXT NOT NULL,
  against   TEXT NOT NULL, -- what the statement said; '' for nothing
  note      TEXT NOT NULL,
  person_id INTEGER NOT NULL, -- 0 for nobody
  at        TEXT NOT NULL,
  rev       INTEGER NOT NULL DEFAULT 0,
  UNIQUE (source, key, field)
) STRICT;
INSERT INTO correction_new (source, key, field, value, against, note, person_id, at)
  SELECT source, key, replace(field, ' ', '_'), value, against, note, (SELECT min(id) FROM person WHERE name = person), at FROM correction ORDER BY source, key, field;
DROP TABLE correction;
ALTER TABLE correction_new RENAME TO correction;
INSERT INTO serial (name, last) SELECT 'correction', coalesce(max(id), 0) FROM correction;

-- Every change of whatever a person edits. Its number is the event that others
-- are told of.
CREATE TABLE journal_new (
  id        INTEGER PRIMARY KEY AUTOINCREMENT,
  plan_id   INTEGER NOT NULL, -- 0 for what is of no plan
  person_id INTEGER NOT NULL, -- 0 for nobody
  kind      TEXT NOT NULL CHECK (kind IN ('do', 'undo', 'redo')),
  target    INTEGER NOT NULL, -- the change that is undone or redone; 0 for none
  label     TEXT NOT NULL,
  at        TEXT NOT NULL,
  changes   TEXT NOT NULL
) STRICT;
INSERT INTO journal_new (id, plan_id, person_id, kind, target, label, at, changes)
  SELECT id, plan_id, coalesce((SELECT min(id) FROM person WHERE name = person AND person <> 'demonstration'), 0), kind, coalesce(target, 0), label, at, changes FROM journal ORDER BY id;
DROP TABLE journal;
ALTER TABLE journal_new RENAME TO journal;
CREATE INDEX journal_person ON journal (person_id, plan_id, id);
CREATE INDEX journal_target ON journal (target);
UPDATE plan SET revision = coalesce((SELECT max(id) FROM journal WHERE plan_id = plan.id), 0);

-- A listing may serve one plan alone, as those of the demonstration do. One that
-- a newer edition replaced is kept until the next.
ALTER TABLE edition ADD COLUMN plan_id INTEGER NOT NULL DEFAULT 0; -- 0 for every plan
ALTER TABLE edition ADD COLUMN kept INTEGER NOT NULL DEFAULT 0;
ALTER TABLE edition ADD COLUMN rev INTEGER NOT NULL DEFAULT 0;
UPDATE plan SET demo = 1 WHERE EXISTS (SELECT 1 FROM outline WHERE name = 'Ostrel Islands') AND id = (SELECT min(id) FROM plan);
UPDATE edition SET plan_id = (SELECT min(id) FROM plan WHERE demo = 1) WHERE file = '' AND EXISTS (SELECT 1 FROM plan WHERE demo = 1);

DROP TABLE operator;
