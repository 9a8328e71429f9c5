-- How papers look and what they say: several for each kind, one of them the usual, one for a customer. Each paper keeps its own.
CREATE TABLE paper_layouts (
  id UUID PRIMARY KEY, kind ENUM('quote','invoice','signed') NOT NULL, name VARCHAR(60) NOT NULL, layout JSON NOT NULL,
  is_usual BOOLEAN NOT NULL DEFAULT FALSE, retired BOOLEAN NOT NULL DEFAULT FALSE, version INT NOT NULL DEFAULT 1,
  KEY (kind, name)
);
ALTER TABLE customers
  ADD quote_layout_id UUID NULL, ADD invoice_layout_id UUID NULL,
  ADD FOREIGN KEY (quote_layout_id) REFERENCES paper_layouts (id),
  ADD FOREIGN KEY (invoice_layout_id) REFERENCES paper_layouts (id);
-- How long the price of a quote is held where nobody says otherwise.
ALTER TABLE company ADD quote_days INT NOT NULL DEFAULT 30;
