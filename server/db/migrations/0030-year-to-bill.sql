-- The year of an agreement that waits to be billed: it counts as billed once its invoice is made, and waits for another work order where its own comes to nothing.
ALTER TABLE agreements ADD year_work_order_id UUID NULL, ADD year_until DATE NULL, ADD FOREIGN KEY (year_work_order_id) REFERENCES work_orders (id);
