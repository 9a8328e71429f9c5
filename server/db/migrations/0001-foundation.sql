-- The foundation: company, people, customers, price book, work orders, visits, clock, invoices, payments, ledger, trail.
-- Money is BIGINT in minor units; unit prices and costs DECIMAL(14,4); instants are UTC DATETIME(3).

CREATE TABLE company (
  id TINYINT PRIMARY KEY CHECK (id = 1),
  name VARCHAR(120) NOT NULL, line1 VARCHAR(160) NOT NULL DEFAULT '', town VARCHAR(80) NOT NULL DEFAULT '', postcode VARCHAR(16) NOT NULL DEFAULT '',
  phone VARCHAR(32) NOT NULL DEFAULT '', email VARCHAR(160) NOT NULL DEFAULT '', tax_number VARCHAR(40) NOT NULL DEFAULT '',
  currency CHAR(3) NOT NULL DEFAULT 'USD', locale VARCHAR(16) NOT NULL DEFAULT 'en-US', time_zone VARCHAR(64) NOT NULL DEFAULT 'America/New_York',
  tax_mode ENUM('added','included','withheld') NOT NULL DEFAULT 'added',
  terms JSON NOT NULL, pay_to TEXT NOT NULL, conditions TEXT NOT NULL, wording JSON NOT NULL,
  yard_lat DOUBLE NULL, yard_lon DOUBLE NULL,
  demo_day DATE NULL, demo_seed INT NULL, version INT NOT NULL DEFAULT 1
);

CREATE TABLE counters (kind VARCHAR(16) PRIMARY KEY, next_value BIGINT NOT NULL CHECK (next_value > 0));
INSERT INTO counters VALUES ('work_order', 1001), ('invoice', 2001), ('receipt', 501);

CREATE TABLE people (
  id UUID PRIMARY KEY, email VARCHAR(160) NOT NULL UNIQUE, name VARCHAR(120) NOT NULL, phone VARCHAR(32) NOT NULL DEFAULT '',
  role ENUM('owner','office','dispatch','books','technician') NOT NULL,
  bookable BOOLEAN NOT NULL DEFAULT FALSE, sees_cost BOOLEAN NOT NULL DEFAULT FALSE, takes_money BOOLEAN NOT NULL DEFAULT TRUE,
  skills JSON NOT NULL, hours JSON NOT NULL, lat DOUBLE NULL, lon DOUBLE NULL, position SMALLINT NOT NULL DEFAULT 0,
  cost_rate DECIMAL(14,4) NOT NULL DEFAULT 0, password_hash VARCHAR(255) NOT NULL, active BOOLEAN NOT NULL DEFAULT TRUE, version INT NOT NULL DEFAULT 1
);
CREATE TABLE sessions (
  id CHAR(64) CHARACTER SET ascii PRIMARY KEY, person_id UUID NOT NULL, kind ENUM('cookie','token') NOT NULL, label VARCHAR(80) NOT NULL DEFAULT '',
  created_at DATETIME(3) NOT NULL, expires_at DATETIME(3) NOT NULL, FOREIGN KEY (person_id) REFERENCES people (id)
);
CREATE TABLE sign_in_failures (email VARCHAR(160) NOT NULL, at DATETIME(3) NOT NULL, KEY (email, at));
CREATE TABLE time_off (
  id UUID PRIMARY KEY, person_id UUID NOT NULL, from_at DATETIME(3) NOT NULL, to_at DATETIME(3) NOT NULL, reason VARCHAR(160) NOT NULL,
  FOREIGN KEY (person_id) REFERENCES people (id), CHECK (to_at > from_at), KEY (from_at)
);

CREATE TABLE territories (id UUID PRIMARY KEY, name VARCHAR(80) NOT NULL, postcodes JSON NOT NULL);
CREATE TABLE price_levels (id UUID PRIMARY KEY, name VARCHAR(80) NOT NULL, kind ENUM('agreement','trade') NOT NULL, off JSON NOT NULL);

CREATE TABLE customers (
  id UUID PRIMARY KEY, name VARCHAR(160) NOT NULL, prospect BOOLEAN NOT NULL DEFAULT FALSE,
  phone VARCHAR(32) NOT NULL DEFAULT '', phone2 VARCHAR(32) NOT NULL DEFAULT '', email VARCHAR(160) NOT NULL DEFAULT '', email2 VARCHAR(160) NOT NULL DEFAULT '',
  line1 VARCHAR(160) NOT NULL DEFAULT '', town VARCHAR(80) NOT NULL DEFAULT '', postcode VARCHAR(16) NOT NULL DEFAULT '',
  terms JSON NULL, price_level_id UUID NULL, tax_exempt BOOLEAN NOT NULL DEFAULT FALSE, exempt_certificate VARCHAR(80) NOT NULL DEFAULT '',
  office_note TEXT NOT NULL, tag VARCHAR(40) NOT NULL DEFAULT '', stop_work VARCHAR(200) NOT NULL DEFAULT '', source VARCHAR(60) NOT NULL DEFAULT '',
  search TEXT NOT NULL, created_at DATETIME(3) NOT NULL, version INT NOT NULL DEFAULT 1,
  FOREIGN KEY (price_level_id) REFERENCES price_levels (id), KEY (name, id)
);
CREATE TABLE sites (
  id UUID PRIMARY KEY, customer_id UUID NOT NULL, name VARCHAR(120) NOT NULL DEFAULT '',
  line1 VARCHAR(160) NOT NULL, town VARCHAR(80) NOT NULL DEFAULT '', postcode VARCHAR(16) NOT NULL DEFAULT '', lat DOUBLE NULL, lon DOUBLE NULL,
  access_note VARCHAR(400) NOT NULL DEFAULT '', search TEXT NOT NULL, version INT NOT NULL DEFAULT 1,
  FOREIGN KEY (customer_id) REFERENCES customers (id)
);
CREATE TABLE contacts (
  id UUID PRIMARY KEY, customer_id UUID NOT NULL, site_id UUID NULL, name VARCHAR(120) NOT NULL, role VARCHAR(40) NOT NULL DEFAULT '',
  phone VARCHAR(32) NOT NULL DEFAULT '', email VARCHAR(160) NOT NULL DEFAULT '', search TEXT NOT NULL,
  FOREIGN KEY (customer_id) REFERENCES customers (id), FOREIGN KEY (site_id) REFERENCES sites (id)
);
CREATE TABLE equipment (
  id UUID PRIMARY KEY, site_id UUID NOT NULL, category VARCHAR(60) NOT NULL, make VARCHAR(60) NOT NULL DEFAULT '', serial VARCHAR(60) NOT NULL DEFAULT '',
  installed_on DATE NULL, warranty_until DATE NULL, FOREIGN KEY (site_id) REFERENCES sites (id)
);
CREATE TABLE agreements (
  id UUID PRIMARY KEY, customer_id UUID NOT NULL, plan VARCHAR(80) NOT NULL, starts_on DATE NOT NULL, ends_on DATE NOT NULL, visit_due_on DATE NULL,
  FOREIGN KEY (customer_id) REFERENCES customers (id)
);

CREATE TABLE tax_classes (id VARCHAR(20) CHARACTER SET ascii PRIMARY KEY, name VARCHAR(60) NOT NULL, rates JSON NOT NULL);
CREATE TABLE markup_tiers (from_cost DECIMAL(14,4) PRIMARY KEY, multiplier DECIMAL(9,6) NOT NULL);
CREATE TABLE price_entries (
  id UUID PRIMARY KEY, code VARCHAR(24) NOT NULL UNIQUE, kind ENUM('task','part','labour','charge') NOT NULL, category VARCHAR(60) NOT NULL,
  name VARCHAR(160) NOT NULL, description TEXT NOT NULL, synonyms VARCHAR(255) NOT NULL DEFAULT '', unit VARCHAR(16) NOT NULL DEFAULT 'each',
  cost DECIMAL(14,4) NOT NULL DEFAULT 0, price DECIMAL(14,4) NOT NULL, further_price DECIMAL(14,4) NULL,
  seconds_first INT NOT NULL DEFAULT 0, seconds_further INT NOT NULL DEFAULT 0, skills JSON NOT NULL, tax_class VARCHAR(20) CHARACTER SET ascii NOT NULL,
  pinned BOOLEAN NOT NULL DEFAULT FALSE, retired BOOLEAN NOT NULL DEFAULT FALSE, version INT NOT NULL DEFAULT 1,
  FOREIGN KEY (tax_class) REFERENCES tax_classes (id), KEY (kind, category, code)
);
CREATE TABLE price_entry_parts (
  entry_id UUID NOT NULL, part_id UUID NOT NULL, quantity DECIMAL(12,3) NOT NULL CHECK (quantity > 0), PRIMARY KEY (entry_id, part_id),
  FOREIGN KEY (entry_id) REFERENCES price_entries (id), FOREIGN KEY (part_id) REFERENCES price_entries (id)
);

CREATE TABLE work_orders (
  id UUID PRIMARY KEY, number VARCHAR(16) NOT NULL UNIQUE, customer_id UUID NOT NULL, site_id UUID NOT NULL,
  title VARCHAR(160) NOT NULL, problem TEXT NOT NULL, kind VARCHAR(40) NOT NULL DEFAULT 'repair', contact JSON NOT NULL, order_number VARCHAR(40) NOT NULL DEFAULT '',
  price_level_id UUID NULL, tax_exempt BOOLEAN NOT NULL, currency CHAR(3) NOT NULL,
  state ENUM('needs_slot','scheduled','on_site','paused','to_bill','billed','closed','cancelled') NOT NULL,
  cancelled BOOLEAN NOT NULL DEFAULT FALSE, closed BOOLEAN NOT NULL DEFAULT FALSE,
  to_bill_minor BIGINT NOT NULL DEFAULT 0, explained_seconds INT NOT NULL DEFAULT 0, created_at DATETIME(3) NOT NULL, done_at DATETIME(3) NULL,
  version INT NOT NULL DEFAULT 1,
  FOREIGN KEY (customer_id) REFERENCES customers (id), FOREIGN KEY (site_id) REFERENCES sites (id), FOREIGN KEY (price_level_id) REFERENCES price_levels (id),
  KEY (state, created_at)
);
CREATE TABLE calls (
  id UUID PRIMARY KEY, state ENUM('open','booked','put_off','declined') NOT NULL DEFAULT 'open', draft JSON NOT NULL, summary VARCHAR(200) NOT NULL DEFAULT '',
  work_order_id UUID NULL, call_back_on DATE NULL, reason VARCHAR(200) NOT NULL DEFAULT '', taken_by UUID NOT NULL,
  created_at DATETIME(3) NOT NULL, version INT NOT NULL DEFAULT 1,
  FOREIGN KEY (work_order_id) REFERENCES work_orders (id), FOREIGN KEY (taken_by) REFERENCES people (id), KEY (state, created_at)
);
CREATE TABLE visits (
  id UUID PRIMARY KEY, work_order_id UUID NOT NULL, technician_id UUID NULL, start_at DATETIME(3) NULL, duration_seconds INT NOT NULL CHECK (duration_seconds BETWEEN 300 AND 86400),
  promise_date DATE NULL, promise_from TIME NULL, promise_to TIME NULL,
  state ENUM('planned','driving','on_site','paused','finished','no_access','cancelled') NOT NULL DEFAULT 'planned',
  started_at DATETIME(3) NULL, finished_at DATETIME(3) NULL, findings TEXT NOT NULL, version INT NOT NULL DEFAULT 1,
  FOREIGN KEY (work_order_id) REFERENCES work_orders (id), FOREIGN KEY (technician_id) REFERENCES people (id),
  KEY (start_at), KEY (technician_id, start_at), CHECK (promise_from IS NULL OR promise_to > promise_from)
);
CREATE TABLE clock_intervals (
  id UUID PRIMARY KEY, person_id UUID NOT NULL, visit_id UUID NULL, kind ENUM('drive','on_site','paused','fetch','other') NOT NULL,
  started_at DATETIME(3) NOT NULL, ended_at DATETIME(3) NULL,
  running_for UUID AS (IF(ended_at IS NULL, person_id, NULL)) STORED UNIQUE,
  FOREIGN KEY (person_id) REFERENCES people (id), FOREIGN KEY (visit_id) REFERENCES visits (id), CHECK (ended_at IS NULL OR ended_at >= started_at), KEY (person_id, started_at)
);
CREATE TABLE work_lines (
  id UUID PRIMARY KEY, work_order_id UUID NOT NULL, visit_id UUID NULL, entry_id UUID NULL, position INT NOT NULL,
  kind ENUM('task','part','labour','charge','other') NOT NULL, name VARCHAR(160) NOT NULL, unit VARCHAR(16) NOT NULL DEFAULT 'each',
  quantity DECIMAL(12,3) NOT NULL, unit_price DECIMAL(14,4) NOT NULL, book_price DECIMAL(14,4) NULL, unit_cost DECIMAL(14,4) NOT NULL DEFAULT 0,
  discount_minor BIGINT NOT NULL DEFAULT 0, tax_class VARCHAR(20) CHARACTER SET ascii NOT NULL, covers_seconds INT NOT NULL DEFAULT 0,
  net_minor BIGINT NOT NULL, saving_minor BIGINT NOT NULL DEFAULT 0, promised_minor BIGINT NOT NULL DEFAULT 0, done BOOLEAN NOT NULL DEFAULT FALSE, removed BOOLEAN NOT NULL DEFAULT FALSE,
  version INT NOT NULL DEFAULT 1,
  FOREIGN KEY (work_order_id) REFERENCES work_orders (id), FOREIGN KEY (visit_id) REFERENCES visits (id), FOREIGN KEY (entry_id) REFERENCES price_entries (id),
  FOREIGN KEY (tax_class) REFERENCES tax_classes (id)
);
CREATE TABLE signatures (
  id UUID PRIMARY KEY, work_order_id UUID NOT NULL, visit_id UUID NULL, name VARCHAR(120) NOT NULL, signed_at DATETIME(3) NOT NULL, taken_by UUID NOT NULL,
  image MEDIUMBLOB NOT NULL, shown JSON NOT NULL, total_minor BIGINT NOT NULL,
  FOREIGN KEY (work_order_id) REFERENCES work_orders (id), FOREIGN KEY (taken_by) REFERENCES people (id)
);
CREATE TABLE photos (
  id UUID PRIMARY KEY, work_order_id UUID NOT NULL, mime VARCHAR(40) NOT NULL, bytes MEDIUMBLOB NOT NULL, taken_by UUID NOT NULL, taken_at DATETIME(3) NOT NULL,
  FOREIGN KEY (work_order_id) REFERENCES work_orders (id), FOREIGN KEY (taken_by) REFERENCES people (id)
);

CREATE TABLE invoices (
  id UUID PRIMARY KEY, number VARCHAR(16) NOT NULL UNIQUE, customer_id UUID NOT NULL, work_order_id UUID NULL,
  issue_on DATE NOT NULL, due_on DATE NOT NULL, currency CHAR(3) NOT NULL, net_minor BIGINT NOT NULL, tax_minor BIGINT NOT NULL, total_minor BIGINT NOT NULL, payable_minor BIGINT NOT NULL,
  frozen JSON NOT NULL, sent BOOLEAN NOT NULL DEFAULT FALSE, state ENUM('open','void','written_off') NOT NULL DEFAULT 'open', paid_minor BIGINT NOT NULL DEFAULT 0, paid_on DATE NULL,
  token_hash CHAR(64) CHARACTER SET ascii NULL UNIQUE, token_expires_at DATETIME(3) NULL, created_at DATETIME(3) NOT NULL, version INT NOT NULL DEFAULT 1,
  open_minor BIGINT AS (IF(state = 'open', payable_minor - paid_minor, 0)) STORED,
  FOREIGN KEY (customer_id) REFERENCES customers (id), FOREIGN KEY (work_order_id) REFERENCES work_orders (id),
  CHECK (paid_minor >= 0 AND paid_minor <= payable_minor), KEY (issue_on, id), KEY (customer_id, due_on), KEY (due_on, id), KEY (open_minor, due_on)
);
CREATE TABLE invoice_lines (
  id UUID PRIMARY KEY, invoice_id UUID NOT NULL, work_line_id UUID NULL, position INT NOT NULL, kind VARCHAR(12) NOT NULL, name VARCHAR(160) NOT NULL,
  net_minor BIGINT NOT NULL, cost_minor BIGINT NOT NULL, FOREIGN KEY (invoice_id) REFERENCES invoices (id), FOREIGN KEY (work_line_id) REFERENCES work_lines (id)
);

CREATE TABLE payments (
  id UUID PRIMARY KEY, number VARCHAR(16) NOT NULL UNIQUE, customer_id UUID NOT NULL, method ENUM('cash','cheque','card','transfer') NOT NULL,
  reference VARCHAR(80) NOT NULL DEFAULT '', amount_minor BIGINT NOT NULL CHECK (amount_minor > 0), received_on DATE NOT NULL, taken_by UUID NULL,
  bounced_on DATE NULL, created_at DATETIME(3) NOT NULL, FOREIGN KEY (customer_id) REFERENCES customers (id), FOREIGN KEY (taken_by) REFERENCES people (id), KEY (received_on, id)
);
CREATE TABLE allocations (
  id UUID PRIMARY KEY, payment_id UUID NOT NULL, invoice_id UUID NOT NULL, amount_minor BIGINT NOT NULL, on_date DATE NOT NULL,
  FOREIGN KEY (payment_id) REFERENCES payments (id), FOREIGN KEY (invoice_id) REFERENCES invoices (id), KEY (on_date)
);
CREATE TABLE card_charges (
  id UUID PRIMARY KEY, invoice_id UUID NOT NULL, amount_minor BIGINT NOT NULL, state ENUM('asked','approved','declined') NOT NULL, terminal_reference VARCHAR(80) NOT NULL DEFAULT '',
  reason VARCHAR(120) NOT NULL DEFAULT '', payment_id UUID NULL, created_at DATETIME(3) NOT NULL,
  FOREIGN KEY (invoice_id) REFERENCES invoices (id), FOREIGN KEY (payment_id) REFERENCES payments (id)
);

CREATE TABLE ledger_entries (
  id BIGINT AUTO_INCREMENT PRIMARY KEY, on_date DATE NOT NULL, kind VARCHAR(20) NOT NULL, source_id UUID NOT NULL, memo VARCHAR(200) NOT NULL, created_at DATETIME(3) NOT NULL,
  UNIQUE (kind, source_id), KEY (on_date)
);
CREATE TABLE ledger_postings (
  id BIGINT AUTO_INCREMENT PRIMARY KEY, entry_id BIGINT NOT NULL, account VARCHAR(20) NOT NULL, amount_minor BIGINT NOT NULL CHECK (amount_minor <> 0), customer_id UUID NULL,
  FOREIGN KEY (entry_id) REFERENCES ledger_entries (id), KEY (account, entry_id)
);
CREATE TRIGGER ledger_entries_keep BEFORE UPDATE ON ledger_entries FOR EACH ROW SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'the ledger is append-only';
CREATE TRIGGER ledger_entries_stay BEFORE DELETE ON ledger_entries FOR EACH ROW SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'the ledger is append-only';
CREATE TRIGGER ledger_postings_keep BEFORE UPDATE ON ledger_postings FOR EACH ROW SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'the ledger is append-only';
CREATE TRIGGER ledger_postings_stay BEFORE DELETE ON ledger_postings FOR EACH ROW SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'the ledger is append-only';
CREATE TRIGGER invoices_frozen BEFORE UPDATE ON invoices FOR EACH ROW
  IF NEW.frozen <> OLD.frozen OR NEW.total_minor <> OLD.total_minor OR NEW.number <> OLD.number OR NEW.payable_minor <> OLD.payable_minor OR NEW.customer_id <> OLD.customer_id
  THEN SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'an invoice is frozen'; END IF;

CREATE TABLE messages (
  id UUID PRIMARY KEY, kind VARCHAR(20) NOT NULL, customer_id UUID NULL, invoice_id UUID NULL, recipients JSON NOT NULL, subject VARCHAR(200) NOT NULL, body TEXT NOT NULL,
  attach ENUM('none','invoice','receipt') NOT NULL DEFAULT 'none', attach_id UUID NULL, state ENUM('waiting','delivered','failed') NOT NULL DEFAULT 'waiting',
  attempts INT NOT NULL DEFAULT 0, next_try_at DATETIME(3) NOT NULL, error VARCHAR(255) NOT NULL DEFAULT '', open_hash CHAR(64) CHARACTER SET ascii NULL UNIQUE,
  created_at DATETIME(3) NOT NULL, delivered_at DATETIME(3) NULL, opened_at DATETIME(3) NULL,
  FOREIGN KEY (customer_id) REFERENCES customers (id), FOREIGN KEY (invoice_id) REFERENCES invoices (id), KEY (state, next_try_at), KEY (created_at, id)
);
CREATE TABLE collection_notes (
  id UUID PRIMARY KEY, customer_id UUID NOT NULL, kind ENUM('promise','dispute','settled','reminder','no_answer','note') NOT NULL, amount_minor BIGINT NULL, on_date DATE NULL,
  text VARCHAR(400) NOT NULL DEFAULT '', noted_by UUID NULL, noted_at DATETIME(3) NOT NULL, noted_on DATE NOT NULL,
  FOREIGN KEY (customer_id) REFERENCES customers (id), FOREIGN KEY (noted_by) REFERENCES people (id)
);

CREATE TABLE trail (
  id BIGINT AUTO_INCREMENT PRIMARY KEY, at DATETIME(3) NOT NULL, person_id UUID NULL, who VARCHAR(120) NOT NULL, ip VARCHAR(45) NOT NULL DEFAULT '',
  subject VARCHAR(20) NOT NULL, subject_id UUID NOT NULL, work_order_id UUID NULL, customer_id UUID NULL, text VARCHAR(300) NOT NULL, data JSON NULL,
  KEY (work_order_id, id), KEY (customer_id, id)
);
CREATE TRIGGER trail_keep BEFORE UPDATE ON trail FOR EACH ROW SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'the trail is append-only';
CREATE TRIGGER trail_stay BEFORE DELETE ON trail FOR EACH ROW SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'the trail is append-only';

CREATE TABLE idempotency_keys (
  id VARCHAR(120) CHARACTER SET ascii PRIMARY KEY, request_hash CHAR(64) CHARACTER SET ascii NOT NULL, status SMALLINT NULL, answer MEDIUMTEXT NULL, created_at DATETIME(3) NOT NULL, KEY (created_at)
);
