-- When what was last taken along, by whom; and what goes out by itself, where to and how often.
CREATE TABLE export_runs (
  what VARCHAR(40) CHARACTER SET ascii PRIMARY KEY, at DATETIME(3) NOT NULL, person_id UUID NULL,
  FOREIGN KEY (person_id) REFERENCES people (id)
);
CREATE TABLE export_schedules (
  id UUID PRIMARY KEY, what VARCHAR(40) CHARACTER SET ascii NOT NULL, every ENUM('day','week','month') NOT NULL,
  way ENUM('mail','folder') NOT NULL, email VARCHAR(160) NOT NULL DEFAULT '', begun_on DATE NOT NULL, due_on DATE NOT NULL,
  last_at DATETIME(3) NULL, problem VARCHAR(255) NOT NULL DEFAULT '', made_by UUID NOT NULL, version INT NOT NULL DEFAULT 1,
  KEY (due_on), FOREIGN KEY (made_by) REFERENCES people (id)
);
ALTER TABLE messages MODIFY attach ENUM('none','invoice','receipt','quote','invitation','export') NOT NULL DEFAULT 'none';
