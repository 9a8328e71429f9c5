-- A plan that is not offered any more stays with the agreements that were made from it.
ALTER TABLE agreement_plans ADD retired BOOLEAN NOT NULL DEFAULT FALSE;
ALTER TABLE price_levels ADD UNIQUE KEY (name);
