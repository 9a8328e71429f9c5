-- What papers are headed with, and how they are paid, part by part. A logo is kept for the papers that were made with it.
CREATE TABLE logos (id UUID PRIMARY KEY, mime VARCHAR(40) NOT NULL, bytes MEDIUMBLOB NOT NULL, made_at DATETIME(3) NOT NULL);
ALTER TABLE company
  ADD legal_name VARCHAR(160) NOT NULL DEFAULT '', ADD registration VARCHAR(160) NOT NULL DEFAULT '',
  ADD payee VARCHAR(120) NOT NULL DEFAULT '', ADD bank VARCHAR(120) NOT NULL DEFAULT '', ADD iban VARCHAR(42) NOT NULL DEFAULT '',
  ADD bic VARCHAR(20) NOT NULL DEFAULT '', ADD cheque_name VARCHAR(120) NOT NULL DEFAULT '', ADD logo_id UUID NULL;
