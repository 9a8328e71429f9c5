-- The answers to the firm's questions go along from the call to the quote, and on to its work.
ALTER TABLE quotes ADD answers JSON NOT NULL DEFAULT '[]';
