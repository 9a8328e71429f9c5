-- What somebody took off a line besides its price level, in their words: they stand on the paper.
ALTER TABLE work_lines ADD discount_words VARCHAR(120) NOT NULL DEFAULT '';
