-- Ways in that end: the code of the first owner, invitations, forgotten passwords. Only their hashes are kept.
CREATE TABLE door_keys (
  hash CHAR(64) CHARACTER SET ascii PRIMARY KEY, kind ENUM('begin','invited','forgotten') NOT NULL, person_id UUID NULL, expires_at DATETIME(3) NOT NULL,
  FOREIGN KEY (person_id) REFERENCES people (id), KEY (expires_at), KEY (person_id, kind)
);
-- Who was invited has no password yet; who left keeps a history.
ALTER TABLE people MODIFY password_hash VARCHAR(255) NOT NULL DEFAULT '', MODIFY skills JSON NOT NULL DEFAULT '[]', MODIFY hours JSON NOT NULL DEFAULT '{}', ADD left_on DATE NULL;
