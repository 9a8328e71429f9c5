-- What a call is about, equipment or what was supplied before, goes along to its quote, and on to the work.
ALTER TABLE quotes ADD equipment_id UUID NULL, ADD about_line_id UUID NULL,
  ADD FOREIGN KEY (equipment_id) REFERENCES equipment (id), ADD FOREIGN KEY (about_line_id) REFERENCES work_lines (id);
