-- A quote is read and answered at a private address of its own; only the hash of that is kept.
ALTER TABLE quotes ADD token_hash CHAR(64) NULL, ADD opened_at DATETIME(3) NULL, ADD UNIQUE KEY (token_hash),
  MODIFY answer VARCHAR(400) NOT NULL DEFAULT '';
