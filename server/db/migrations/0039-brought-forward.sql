-- Each series of numbers is the firm's own; a change of it begins another run, and within a run there is no gap.
ALTER TABLE counters
  ADD prefix VARCHAR(16) NOT NULL DEFAULT '', ADD width TINYINT UNSIGNED NOT NULL DEFAULT 1, ADD yearly BOOLEAN NOT NULL DEFAULT FALSE,
  ADD year SMALLINT UNSIGNED NOT NULL DEFAULT 0, ADD run INT UNSIGNED NOT NULL DEFAULT 1;
UPDATE counters SET prefix = CASE kind WHEN 'work_order' THEN 'W-' WHEN 'invoice' THEN 'I-' WHEN 'receipt' THEN 'R-' ELSE 'Q-' END;
-- What was open before the firm began here: counted in our books from a day, under the number that the customer knows.
ALTER TABLE imports MODIFY what ENUM('customers','contacts','brought') NOT NULL;
ALTER TABLE work_orders MODIFY number VARCHAR(24) NOT NULL;
ALTER TABLE quotes MODIFY number VARCHAR(24) NOT NULL;
ALTER TABLE invoices MODIFY number VARCHAR(24) NOT NULL, ADD run INT UNSIGNED NULL, ADD serial INT UNSIGNED NULL,
  ADD import_id UUID NULL, ADD brought_on DATE NULL, ADD booked_on DATE AS (COALESCE(brought_on, issue_on)) STORED,
  ADD FOREIGN KEY (import_id) REFERENCES imports (id);
UPDATE invoices SET run = 1, serial = CAST(SUBSTRING(number, 3) AS UNSIGNED) WHERE number REGEXP '^I-[0-9]{1,9}$';
ALTER TABLE payments MODIFY number VARCHAR(24) NOT NULL, MODIFY method ENUM('cash','cheque','card','transfer','credit') NOT NULL,
  ADD import_id UUID NULL, ADD FOREIGN KEY (import_id) REFERENCES imports (id);
