-- A sound floor: jobs outside requests, events that every process reads, tries that are counted, links that end.

-- What is done outside a request or outside the building: claimed by one worker, done, noted.
CREATE TABLE jobs (
  id BIGINT AUTO_INCREMENT PRIMARY KEY, kind VARCHAR(40) CHARACTER SET ascii NOT NULL, job_key VARCHAR(120) CHARACTER SET ascii NULL, payload JSON NOT NULL,
  state ENUM('waiting','running','done','failed') NOT NULL DEFAULT 'waiting', run_at DATETIME(3) NOT NULL, attempts INT NOT NULL DEFAULT 0,
  claimed_by CHAR(36) CHARACTER SET ascii NULL, claimed_until DATETIME(3) NULL, error VARCHAR(255) NOT NULL DEFAULT '', created_at DATETIME(3) NOT NULL, ended_at DATETIME(3) NULL,
  UNIQUE (kind, job_key), KEY (kind, state, run_at), KEY (state, ended_at)
);

-- What changed, for every process to read; kept for a day.
CREATE TABLE events (
  id BIGINT AUTO_INCREMENT PRIMARY KEY, at DATETIME(3) NOT NULL, topic VARCHAR(12) CHARACTER SET ascii NOT NULL, subject VARCHAR(20) CHARACTER SET ascii NOT NULL,
  subject_id VARCHAR(64) CHARACTER SET ascii NOT NULL, work_order_id UUID NULL, KEY (at)
);

-- How often something was tried, by a hash of who tried what.
DROP TABLE sign_in_failures;
CREATE TABLE tries (id CHAR(64) CHARACTER SET ascii PRIMARY KEY, count INT NOT NULL, last_at DATETIME(3) NOT NULL, KEY (last_at));

-- Where somebody is signed in, and since when nothing came from there.
ALTER TABLE sessions ADD ip VARCHAR(45) NOT NULL DEFAULT '', ADD last_seen_at DATETIME(3) NULL;
UPDATE sessions SET last_seen_at = created_at WHERE last_seen_at IS NULL;
ALTER TABLE sessions MODIFY last_seen_at DATETIME(3) NOT NULL;

-- Answers that hold secrets are not kept any more; those that were are taken out.
UPDATE idempotency_keys SET answer = NULL WHERE answer LIKE '%cookieToken%' OR answer LIKE '{"token":%' OR answer LIKE '%/public/calendars/%';

-- A demo has a clock of its own: so far from the wall's.
ALTER TABLE company ADD clock_offset_ms BIGINT NOT NULL DEFAULT 0;

-- A customer's link can be withdrawn, and another one made: each turn gives another link.
ALTER TABLE invoices ADD link_turn INT NOT NULL DEFAULT 0;

-- A form that is sent back to its sender, for an hour.
CREATE TABLE sent_forms (id UUID PRIMARY KEY, fields JSON NOT NULL, problem JSON NOT NULL, kept_at DATETIME(3) NOT NULL, KEY (kept_at));

-- Cards: a second approval of one amount is given back.
ALTER TABLE card_charges MODIFY state ENUM('asked','approved','declined','refunding','refunded') NOT NULL, ADD settled_at DATETIME(3) NULL, ADD KEY (state, settled_at), ADD KEY (invoice_id, state);

-- Messages are delivered by jobs.
INSERT IGNORE INTO jobs (kind, job_key, payload, run_at, created_at) SELECT 'deliver', id, JSON_OBJECT('messageId', id), UTC_TIMESTAMP(3), UTC_TIMESTAMP(3) FROM messages WHERE state = 'waiting';
ALTER TABLE messages DROP KEY state, DROP next_try_at, ADD KEY (state, created_at);

-- A plan that is worked on says so; whoever wants it stopped says it where every process reads it.
ALTER TABLE day_plans ADD alive_at DATETIME(3) NULL, ADD stop_wanted BOOLEAN NOT NULL DEFAULT FALSE, ADD KEY (state, alive_at);

-- What lists and histories are asked by.
ALTER TABLE trail ADD KEY (subject_id, id);
ALTER TABLE invoices ADD KEY (paid_on);
ALTER TABLE customers ADD KEY (phone), ADD KEY (phone2);
ALTER TABLE contacts ADD KEY (phone), ADD KEY (phone2);

-- How far long work is, for those who wait for it in any process; the work itself is one transaction that nobody sees into.
CREATE TABLE progress (id UUID PRIMARY KEY, what VARCHAR(40) NOT NULL, done INT NOT NULL, total INT NOT NULL, told_at DATETIME(3) NOT NULL, KEY (told_at));
