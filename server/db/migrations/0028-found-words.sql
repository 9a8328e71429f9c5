-- What is wrong, and what was found, in the index of words: the one search finds work by them.
ALTER TABLE work_orders ADD FULLTEXT KEY said (problem);
ALTER TABLE visits ADD FULLTEXT KEY found (findings);
