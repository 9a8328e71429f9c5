-- Quotes: what was offered before work is promised. A quote belongs to the work order it was begun from, or makes one when it is accepted.
CREATE TABLE quotes (
  id UUID PRIMARY KEY, number VARCHAR(16) NOT NULL UNIQUE, customer_id UUID NOT NULL, site_id UUID NOT NULL, work_order_id UUID NULL, owner_id UUID NULL,
  contact JSON NOT NULL, title VARCHAR(160) NOT NULL, scope TEXT NOT NULL, order_number VARCHAR(40) NOT NULL DEFAULT '', source VARCHAR(60) NOT NULL DEFAULT '',
  state ENUM('draft','sent','accepted','declined') NOT NULL DEFAULT 'draft', expires_on DATE NOT NULL, price_level_id UUID NULL, tax_exempt BOOLEAN NOT NULL, currency CHAR(3) NOT NULL,
  net_minor BIGINT NOT NULL DEFAULT 0, total_minor BIGINT NOT NULL DEFAULT 0, frozen JSON NULL, sent_at DATETIME(3) NULL, answered_at DATETIME(3) NULL, answer VARCHAR(200) NOT NULL DEFAULT '',
  created_at DATETIME(3) NOT NULL, version INT NOT NULL DEFAULT 1,
  FOREIGN KEY (customer_id) REFERENCES customers (id), FOREIGN KEY (site_id) REFERENCES sites (id), FOREIGN KEY (work_order_id) REFERENCES work_orders (id), FOREIGN KEY (owner_id) REFERENCES people (id),
  FOREIGN KEY (price_level_id) REFERENCES price_levels (id), KEY (state, created_at), KEY (created_at, id)
);
CREATE TABLE quote_lines (
  id UUID PRIMARY KEY, quote_id UUID NOT NULL, entry_id UUID NULL, position INT NOT NULL, kind ENUM('task','part','labour','charge','other') NOT NULL, name VARCHAR(160) NOT NULL, unit VARCHAR(16) NOT NULL DEFAULT 'each',
  quantity DECIMAL(12,3) NOT NULL, unit_price DECIMAL(14,4) NOT NULL, book_price DECIMAL(14,4) NULL, unit_cost DECIMAL(14,4) NOT NULL DEFAULT 0, discount_minor BIGINT NOT NULL DEFAULT 0,
  tax_class VARCHAR(20) CHARACTER SET ascii NOT NULL, covers_seconds INT NOT NULL DEFAULT 0, net_minor BIGINT NOT NULL, saving_minor BIGINT NOT NULL DEFAULT 0,
  FOREIGN KEY (quote_id) REFERENCES quotes (id), FOREIGN KEY (entry_id) REFERENCES price_entries (id), FOREIGN KEY (tax_class) REFERENCES tax_classes (id), KEY (quote_id, position)
);
INSERT INTO counters (kind, next_value) VALUES ('quote', 101);
ALTER TABLE calls MODIFY state ENUM('open','booked','quoted','put_off','declined') NOT NULL DEFAULT 'open', ADD quote_id UUID NULL, ADD FOREIGN KEY (quote_id) REFERENCES quotes (id);
ALTER TABLE messages MODIFY attach ENUM('none','invoice','receipt','quote') NOT NULL DEFAULT 'none', ADD quote_id UUID NULL, ADD FOREIGN KEY (quote_id) REFERENCES quotes (id);
-- How the caller heard of the firm counts where the money is: at the work.
ALTER TABLE work_orders ADD source VARCHAR(60) NOT NULL DEFAULT '', ADD KEY (created_at, id), ADD KEY (number, id);
