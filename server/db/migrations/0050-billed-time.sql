-- How time on site becomes time that is charged.
ALTER TABLE company ADD COLUMN billed_time JSON NOT NULL DEFAULT '{"way":"nearest","stepMinutes":6,"leastMinutes":6}';
