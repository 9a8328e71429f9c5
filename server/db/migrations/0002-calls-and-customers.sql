-- Calls and customers in depth: what a firm keeps of its customers, requests from outside, merging, imports, agreements.

ALTER TABLE company
  ADD country CHAR(2) NOT NULL DEFAULT 'US', ADD state_labels JSON NOT NULL DEFAULT '{}',
  ADD sources JSON NOT NULL DEFAULT '["neighbour", "web page", "van", "returning"]';

ALTER TABLE people ADD territory_ids JSON NOT NULL DEFAULT '[]';

ALTER TABLE customers
  ADD tags JSON NOT NULL DEFAULT '[]', ADD printed_note VARCHAR(400) NOT NULL DEFAULT '', ADD exempt_until DATE NULL,
  ADD own_prices JSON NOT NULL DEFAULT '{}', ADD credit_limit_minor BIGINT NULL, ADD assigned_to UUID NULL,
  ADD mail_consent ENUM('not asked','yes','no') NOT NULL DEFAULT 'not asked', ADD text_consent ENUM('not asked','yes','no') NOT NULL DEFAULT 'not asked',
  ADD custom JSON NOT NULL DEFAULT '{}', ADD merged_into UUID NULL, ADD erased_at DATETIME(3) NULL, ADD import_id UUID NULL,
  ADD FOREIGN KEY (assigned_to) REFERENCES people (id), ADD FOREIGN KEY (merged_into) REFERENCES customers (id), ADD KEY (town, id), ADD KEY (import_id);
UPDATE customers SET tags = JSON_ARRAY(tag) WHERE tag <> '';
ALTER TABLE customers DROP tag;

ALTER TABLE sites ADD custom JSON NOT NULL DEFAULT '{}', ADD import_id UUID NULL, ADD KEY (line1, id), ADD KEY (town, id), ADD KEY (import_id);
ALTER TABLE contacts ADD phone2 VARCHAR(32) NOT NULL DEFAULT '', ADD removed BOOLEAN NOT NULL DEFAULT FALSE, ADD import_id UUID NULL, ADD version INT NOT NULL DEFAULT 1, ADD KEY (import_id);
ALTER TABLE equipment
  ADD next_service_on DATE NULL, ADD note VARCHAR(200) NOT NULL DEFAULT '', ADD removed BOOLEAN NOT NULL DEFAULT FALSE, ADD version INT NOT NULL DEFAULT 1, ADD KEY (serial);

CREATE TABLE agreement_plans (
  id UUID PRIMARY KEY, name VARCHAR(80) NOT NULL UNIQUE, visits_a_year TINYINT NOT NULL CHECK (visits_a_year BETWEEN 1 AND 12), visit_seconds INT NOT NULL DEFAULT 3600,
  price DECIMAL(14,4) NOT NULL DEFAULT 0, price_level_id UUID NULL, work VARCHAR(160) NOT NULL, FOREIGN KEY (price_level_id) REFERENCES price_levels (id)
);
ALTER TABLE agreements ADD billed_until DATE NULL, ADD plan_id UUID NULL, ADD site_id UUID NULL, ADD version INT NOT NULL DEFAULT 1,
  ADD FOREIGN KEY (plan_id) REFERENCES agreement_plans (id), ADD FOREIGN KEY (site_id) REFERENCES sites (id), ADD KEY (visit_due_on), ADD KEY (ends_on);

-- What the firm asks every caller, and the fields that it invents.
CREATE TABLE call_questions (
  id UUID PRIMARY KEY, text VARCHAR(160) NOT NULL, kind ENUM('yes_no','text','choice') NOT NULL, choices JSON NOT NULL DEFAULT '[]', position SMALLINT NOT NULL DEFAULT 0, retired BOOLEAN NOT NULL DEFAULT FALSE
);
CREATE TABLE custom_fields (
  id UUID PRIMARY KEY, subject ENUM('customer','site','work_order','invoice') NOT NULL, name VARCHAR(60) NOT NULL, kind ENUM('text','number','date','choice','yes_no') NOT NULL,
  choices JSON NOT NULL DEFAULT '[]', position SMALLINT NOT NULL DEFAULT 0, retired BOOLEAN NOT NULL DEFAULT FALSE, UNIQUE (subject, name)
);

-- A work order keeps the customer's details as they were when it was made.
ALTER TABLE work_orders ADD details JSON NOT NULL DEFAULT '{}', ADD printed_note VARCHAR(400) NOT NULL DEFAULT '', ADD answers JSON NOT NULL DEFAULT '[]', ADD custom JSON NOT NULL DEFAULT '{}', ADD assigned_to UUID NULL, ADD equipment_id UUID NULL,
  ADD FOREIGN KEY (assigned_to) REFERENCES people (id), ADD FOREIGN KEY (equipment_id) REFERENCES equipment (id);
ALTER TABLE invoices ADD custom JSON NOT NULL DEFAULT '{}';

-- Requests from the public form have nobody who took them.
ALTER TABLE calls MODIFY taken_by UUID NULL, ADD origin ENUM('telephone','form','hand') NOT NULL DEFAULT 'telephone', ADD assigned_to UUID NULL, ADD FOREIGN KEY (assigned_to) REFERENCES people (id);
CREATE TABLE request_marks (source CHAR(64) CHARACTER SET ascii NOT NULL, at DATETIME(3) NOT NULL, KEY (source, at), KEY (at));

CREATE TABLE attachments (
  id UUID PRIMARY KEY, customer_id UUID NULL, site_id UUID NULL, call_id UUID NULL, name VARCHAR(160) NOT NULL, mime VARCHAR(40) CHARACTER SET ascii NOT NULL, bytes MEDIUMBLOB NOT NULL,
  added_by UUID NULL, added_at DATETIME(3) NOT NULL,
  FOREIGN KEY (customer_id) REFERENCES customers (id), FOREIGN KEY (site_id) REFERENCES sites (id), FOREIGN KEY (added_by) REFERENCES people (id), KEY (call_id)
);

-- Two customers that were one: what moved, so that it can move back; and pairs that somebody said are not the same.
CREATE TABLE merges (
  id UUID PRIMARY KEY, kept_id UUID NOT NULL, merged_id UUID NOT NULL, moved JSON NOT NULL, before_merge JSON NOT NULL, merged_by UUID NOT NULL, merged_at DATETIME(3) NOT NULL, undone_at DATETIME(3) NULL,
  FOREIGN KEY (kept_id) REFERENCES customers (id), FOREIGN KEY (merged_id) REFERENCES customers (id), FOREIGN KEY (merged_by) REFERENCES people (id)
);
CREATE TABLE not_duplicates (first_id UUID NOT NULL, second_id UUID NOT NULL, said_by UUID NOT NULL, said_at DATETIME(3) NOT NULL, PRIMARY KEY (first_id, second_id), FOREIGN KEY (said_by) REFERENCES people (id));

CREATE TABLE imports (
  id UUID PRIMARY KEY, what ENUM('customers','contacts') NOT NULL, file_name VARCHAR(160) NOT NULL, added INT NOT NULL, skipped INT NOT NULL, imported_by UUID NOT NULL, imported_at DATETIME(3) NOT NULL, undone_at DATETIME(3) NULL,
  FOREIGN KEY (imported_by) REFERENCES people (id)
);

-- An invoice keeps what was sent for ever; whose account it stands in may change when two customers turn out to be one.
DROP TRIGGER invoices_frozen;
CREATE TRIGGER invoices_frozen BEFORE UPDATE ON invoices FOR EACH ROW
  IF NEW.frozen <> OLD.frozen OR NEW.total_minor <> OLD.total_minor OR NEW.number <> OLD.number OR NEW.payable_minor <> OLD.payable_minor
  THEN SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'an invoice is frozen'; END IF;

-- What was written down about a person can be taken out again when that person asks: the entry stays, the words go.
DROP TRIGGER trail_keep;
CREATE TRIGGER trail_keep BEFORE UPDATE ON trail FOR EACH ROW
  IF NOT (NEW.data IS NULL AND NEW.id = OLD.id AND NEW.at = OLD.at AND NEW.who = OLD.who AND NEW.subject = OLD.subject AND NEW.subject_id = OLD.subject_id AND NEW.customer_id <=> OLD.customer_id
    AND NEW.work_order_id <=> OLD.work_order_id AND (NEW.text = OLD.text OR NEW.text = 'taken out when the person asked for it'))
  THEN SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'the trail is append-only'; END IF;
