-- Who may do what, where the owner says otherwise than is usual. What things cost is seen by role; a person may see it besides.
ALTER TABLE company ADD grants JSON NOT NULL DEFAULT '{}';
UPDATE people SET sees_cost = FALSE WHERE role IN ('owner', 'office', 'books');
ALTER TABLE people DROP COLUMN takes_money;
-- A quote that goes below a limit waits for another person's yes as well.
ALTER TABLE asks MODIFY work_order_id UUID NULL, ADD quote_id UUID NULL, ADD FOREIGN KEY (quote_id) REFERENCES quotes (id);
