-- The schedule: times held for a caller, meetings and holidays, roads, calendars, plans that somebody proposes.
ALTER TABLE calls ADD held_until DATETIME(3) NULL, ADD KEY (held_until);
CREATE TABLE day_entries (
  id UUID PRIMARY KEY, person_id UUID NOT NULL, from_at DATETIME(3) NOT NULL, to_at DATETIME(3) NOT NULL, title VARCHAR(120) NOT NULL, version INT NOT NULL DEFAULT 1,
  FOREIGN KEY (person_id) REFERENCES people (id), CHECK (to_at > from_at), KEY (from_at)
);
CREATE TABLE holidays (on_date DATE PRIMARY KEY, name VARCHAR(80) NOT NULL);
CREATE TABLE road_networks (id UUID PRIMARY KEY, name VARCHAR(120) NOT NULL, roads INT NOT NULL, data LONGBLOB NOT NULL, imported_by UUID NULL, imported_at DATETIME(3) NOT NULL, FOREIGN KEY (imported_by) REFERENCES people (id));
ALTER TABLE people ADD feed_hash CHAR(64) CHARACTER SET ascii NULL UNIQUE;
ALTER TABLE visits ADD locked BOOLEAN NOT NULL DEFAULT FALSE;
CREATE TABLE day_plans (
  id UUID PRIMARY KEY, state ENUM('running','ready','accepted','stopped','failed') NOT NULL, wish JSON NOT NULL, progress DECIMAL(5,4) NOT NULL DEFAULT 0, result JSON NULL, problem VARCHAR(200) NOT NULL DEFAULT '',
  asked_by UUID NOT NULL, asked_at DATETIME(3) NOT NULL, FOREIGN KEY (asked_by) REFERENCES people (id), KEY (asked_at)
);
