-- What a work order is about may be something that was supplied before, with the firm's warranty on it; no months: nothing is said of one.
ALTER TABLE company ADD warranty_months SMALLINT NOT NULL DEFAULT 0;
ALTER TABLE work_orders ADD about_line_id UUID NULL, ADD FOREIGN KEY (about_line_id) REFERENCES work_lines (id);
