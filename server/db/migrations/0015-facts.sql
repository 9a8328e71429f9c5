-- What happened, as a code with its data: the sentence in the history is made when it is read. Rows from before keep their text.
ALTER TABLE trail ADD COLUMN code VARCHAR(60) NULL AFTER subject_id;

-- A code is kept like everything else of an entry.
DROP TRIGGER IF EXISTS trail_keep;
CREATE TRIGGER trail_keep BEFORE UPDATE ON trail FOR EACH ROW
  IF NOT (NEW.data IS NULL AND NEW.id = OLD.id AND NEW.at = OLD.at AND NEW.who = OLD.who AND NEW.subject = OLD.subject AND NEW.subject_id = OLD.subject_id AND NEW.code <=> OLD.code AND NEW.customer_id <=> OLD.customer_id
    AND NEW.work_order_id <=> OLD.work_order_id AND (NEW.text = OLD.text OR NEW.text = 'taken out when the person asked for it'))
  THEN SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'the trail is append-only'; END IF;
