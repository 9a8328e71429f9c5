-- What the firm writes often, where it is not the usual: lists of phrases by where they are proposed.
ALTER TABLE company ADD COLUMN phrases JSON NOT NULL DEFAULT '{}';
