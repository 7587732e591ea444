-- +goose Up
-- Channels that belong together: a bank, a scan list, a purpose. A channel may be
-- in several.
CREATE TABLE channel_set (
  id      INTEGER PRIMARY KEY,
  plan_id INTEGER NOT NULL REFERENCES plan (id) DEFERRABLE INITIALLY DEFERRED,
  kind    TEXT NOT NULL,
  name    TEXT NOT NULL,
  rev     INTEGER NOT NULL DEFAULT 0,
  UNIQUE (plan_id, kind, name)
) STRICT;
CREATE TABLE member (
  id         INTEGER PRIMARY KEY,
  set_id     INTEGER NOT NULL REFERENCES channel_set (id) DEFERRABLE INITIALLY DEFERRED,
  channel_id INTEGER NOT NULL REFERENCES channel (id) DEFERRABLE INITIALLY DEFERRED,
  place      INTEGER NOT NULL, -- its order in the set
  priority   INTEGER NOT NULL DEFAULT 0,
  rev        INTEGER NOT NULL DEFAULT 0,
  UNIQUE (set_id, channel_id)
) STRICT;
CREATE INDEX member_channel ON member (channel_id);

-- A plan as it was after a change, under a name.
CREATE TABLE snapshot (
  id      INTEGER PRIMARY KEY,
  plan_id INTEGER NOT NULL REFERENCES plan (id) DEFERRABLE INITIALLY DEFERRED,
  name    TEXT NOT NULL,
  event   INTEGER NOT NULL, -- the last change that is in it
  at      TEXT NOT NULL,
  rev     INTEGER NOT NULL DEFAULT 0
) STRICT;

-- A short name that a person chose stays when others change.
ALTER TABLE entry ADD COLUMN pinned INTEGER NOT NULL DEFAULT 0;
CREATE INDEX journal_plan ON journal (plan_id, id);

-- +goose Down
DROP INDEX journal_plan;
ALTER TABLE entry DROP COLUMN pinned;
DROP TABLE snapshot;
DROP TABLE member;
DROP TABLE channel_set;
