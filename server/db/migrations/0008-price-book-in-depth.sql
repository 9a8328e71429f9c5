-- Assemblies, pictures, entries pinned by each person, times of day, lists that are taken in and given back; what was bought stands on the line.
ALTER TABLE price_entries MODIFY kind ENUM('task','part','labour','charge','assembly') NOT NULL, MODIFY category VARCHAR(120) NOT NULL, ADD picture_id UUID NULL;
CREATE TABLE price_pictures (id UUID PRIMARY KEY, entry_id UUID NOT NULL, mime VARCHAR(40) NOT NULL, bytes MEDIUMBLOB NOT NULL, KEY (entry_id), FOREIGN KEY (entry_id) REFERENCES price_entries (id));
CREATE TABLE price_pins (person_id UUID NOT NULL, entry_id UUID NOT NULL, PRIMARY KEY (person_id, entry_id), FOREIGN KEY (person_id) REFERENCES people (id), FOREIGN KEY (entry_id) REFERENCES price_entries (id));
-- Rows wait here, as they came, until all of them are taken in together; afterwards they keep what each entry was before.
CREATE TABLE price_imports (id UUID PRIMARY KEY, file_name VARCHAR(160) NOT NULL, supplier VARCHAR(80) NOT NULL DEFAULT '', columns_as JSON NOT NULL, state ENUM('waiting','taken','undone') NOT NULL DEFAULT 'waiting', counts JSON NULL, made_by UUID NOT NULL, made_at DATETIME(3) NOT NULL, KEY (made_at, id), FOREIGN KEY (made_by) REFERENCES people (id));
CREATE TABLE price_import_rows (import_id UUID NOT NULL, row_no INT NOT NULL, cells JSON NOT NULL, PRIMARY KEY (import_id, row_no), FOREIGN KEY (import_id) REFERENCES price_imports (id) ON DELETE CASCADE);
CREATE TABLE price_import_entries (import_id UUID NOT NULL, entry_id UUID NOT NULL, was JSON NULL, became_version INT NOT NULL, PRIMARY KEY (import_id, entry_id), FOREIGN KEY (import_id) REFERENCES price_imports (id));
-- What each column of a source meant the last time.
CREATE TABLE column_meanings (source VARCHAR(160) PRIMARY KEY, columns_as JSON NOT NULL);
-- Where a line's price came from is kept in words with the line, beside what was bought for it.
ALTER TABLE work_lines ADD supplier VARCHAR(80) NOT NULL DEFAULT '', ADD part_number VARCHAR(60) NOT NULL DEFAULT '', ADD price_from VARCHAR(160) NOT NULL DEFAULT '', ADD KEY (entry_id, done);
ALTER TABLE quote_lines ADD supplier VARCHAR(80) NOT NULL DEFAULT '', ADD part_number VARCHAR(60) NOT NULL DEFAULT '', ADD price_from VARCHAR(160) NOT NULL DEFAULT '';
ALTER TABLE work_orders ADD own_prices JSON NOT NULL DEFAULT '{}';
