-- What a customer signed is a paper of its own, with a fingerprint; it is kept as it was.
ALTER TABLE signatures ADD purpose ENUM('before','after') NOT NULL DEFAULT 'before', ADD hash CHAR(64) CHARACTER SET ascii NOT NULL DEFAULT '';
CREATE TRIGGER signatures_keep BEFORE UPDATE ON signatures FOR EACH ROW IF NEW.image <> '' AND (NEW.image <> OLD.image OR NEW.shown <> OLD.shown OR NEW.total_minor <> OLD.total_minor OR NEW.signed_at <> OLD.signed_at OR NEW.hash <> OLD.hash) THEN SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'what was signed is kept as it was'; END IF;
CREATE TRIGGER signatures_stay BEFORE DELETE ON signatures FOR EACH ROW SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'what was signed is kept as it was';
