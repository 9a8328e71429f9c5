-- A second step when somebody signs in: a code of an app, or one of the recovery codes. The secret is kept sealed, codes as hashes.
CREATE TABLE second_steps (
  person_id UUID PRIMARY KEY, secret VARCHAR(255) CHARACTER SET ascii NOT NULL, confirmed_at DATETIME(3) NULL, last_step BIGINT NOT NULL DEFAULT 0,
  FOREIGN KEY (person_id) REFERENCES people (id)
);
CREATE TABLE recovery_codes (hash CHAR(64) CHARACTER SET ascii PRIMARY KEY, person_id UUID NOT NULL, FOREIGN KEY (person_id) REFERENCES people (id));
ALTER TABLE company ADD second_step_roles JSON NOT NULL DEFAULT '[]';
ALTER TABLE trail ADD KEY (code, id);
ALTER TABLE sessions ADD reads_only BOOLEAN NOT NULL DEFAULT FALSE;
