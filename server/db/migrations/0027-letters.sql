-- A letter is kept like what was mailed, and printed from what is kept.
ALTER TABLE messages MODIFY channel ENUM('mail','text','letter') NOT NULL DEFAULT 'mail';
