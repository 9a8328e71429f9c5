-- Who else is to be spoken to about a work order, and what of it is for the office alone.
ALTER TABLE work_orders ADD office_note VARCHAR(2000) NOT NULL DEFAULT '', ADD other_contacts JSON NOT NULL DEFAULT '[]';
