-- What an hour of somebody costs from an instant on: the hours before cost what they cost then.
CREATE TABLE cost_rates (
  person_id UUID NOT NULL, starts_at DATETIME(3) NOT NULL, rate DECIMAL(14,4) NOT NULL CHECK (rate >= 0),
  PRIMARY KEY (person_id, starts_at), FOREIGN KEY (person_id) REFERENCES people (id)
);
INSERT INTO cost_rates SELECT id, '1970-01-01 00:00:00', cost_rate FROM people WHERE cost_rate > 0;
ALTER TABLE people DROP COLUMN cost_rate, ADD COLUMN payroll_number VARCHAR(32) NOT NULL DEFAULT '';
