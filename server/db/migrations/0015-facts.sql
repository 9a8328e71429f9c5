-- What happened, as a code with its data: the sentence in the history is made when it is read. Rows from before keep their text.
ALTER TABLE trail ADD COLUMN code VARCHAR(60) NULL AFTER subject_id;
