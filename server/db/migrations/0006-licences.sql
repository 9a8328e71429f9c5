-- Skills that stand on a licence end with it; whoever goes along has a clock of their own.
ALTER TABLE people ADD licences JSON NOT NULL DEFAULT '[]';
