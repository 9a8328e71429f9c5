-- Phases of long work: what belongs to which, of visits and of lines; a line without one is of its visit's.
CREATE TABLE work_phases (
  id UUID PRIMARY KEY, work_order_id UUID NOT NULL, position INT NOT NULL, name VARCHAR(80) NOT NULL,
  FOREIGN KEY (work_order_id) REFERENCES work_orders (id), KEY (work_order_id, position)
);
ALTER TABLE visits ADD phase_id UUID NULL, ADD FOREIGN KEY (phase_id) REFERENCES work_phases (id) ON DELETE SET NULL;
ALTER TABLE work_lines ADD phase_id UUID NULL, ADD FOREIGN KEY (phase_id) REFERENCES work_phases (id) ON DELETE SET NULL;
