-- The price book as it is built and kept: what each price comes from, the rules, changes of prices as acts with a history.
ALTER TABLE price_entries ADD pricing ENUM('rule','fixed') NOT NULL DEFAULT 'fixed', ADD labour_id UUID NULL, ADD sundries_rate DECIMAL(9,6) NULL, ADD technician_note TEXT NOT NULL DEFAULT '', ADD income_code VARCHAR(24) NOT NULL DEFAULT '',
  ADD supplier VARCHAR(80) NOT NULL DEFAULT '', ADD part_number VARCHAR(60) NOT NULL DEFAULT '', ADD active_from DATE NULL, ADD active_to DATE NULL, ADD priced_on DATE NULL, ADD FOREIGN KEY (labour_id) REFERENCES price_entries (id), ADD KEY (supplier, part_number);
UPDATE price_entries t JOIN (SELECT id FROM price_entries WHERE kind = 'labour' AND NOT retired ORDER BY pinned DESC, code LIMIT 1) l SET t.labour_id = l.id WHERE t.kind = 'task';
ALTER TABLE company ADD pricing JSON NOT NULL DEFAULT '{"sundriesRate":"0","minimum":"0","rounding":{"kind":"none"}}';
CREATE TABLE markup_rules (id UUID PRIMARY KEY, scope ENUM('all','category','supplier') NOT NULL, name VARCHAR(80) NOT NULL DEFAULT '', tiers JSON NOT NULL, UNIQUE (scope, name));
INSERT INTO markup_rules (id, scope, tiers) SELECT UUID(), 'all', JSON_ARRAYAGG(JSON_OBJECT('fromCost', CAST(from_cost AS CHAR), 'multiplier', CAST(multiplier AS CHAR))) FROM markup_tiers HAVING COUNT(*) > 0;
DROP TABLE markup_tiers;
CREATE TABLE price_batches (id UUID PRIMARY KEY, title VARCHAR(160) NOT NULL, holds_from DATE NOT NULL, state ENUM('waiting','applied','undone') NOT NULL, made_by UUID NULL, made_at DATETIME(3) NOT NULL, KEY (state, holds_from), KEY (made_at, id), FOREIGN KEY (made_by) REFERENCES people (id));
CREATE TABLE price_history (id BIGINT AUTO_INCREMENT PRIMARY KEY, batch_id UUID NOT NULL, entry_id UUID NOT NULL, was JSON NOT NULL, became JSON NOT NULL, follows BOOLEAN NOT NULL DEFAULT FALSE, KEY (entry_id, id), UNIQUE (batch_id, entry_id), FOREIGN KEY (batch_id) REFERENCES price_batches (id), FOREIGN KEY (entry_id) REFERENCES price_entries (id));
