-- Work orders are found by who goes to them.
ALTER TABLE people ADD FULLTEXT KEY words (name);
