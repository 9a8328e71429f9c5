-- What a task costs is what its parts cost, so that a new cost of a part is one of every task that it stands in.
UPDATE price_entries e
JOIN (SELECT ep.entry_id, SUM(p.cost * ep.quantity) AS cost FROM price_entry_parts ep JOIN price_entries p ON p.id = ep.part_id GROUP BY ep.entry_id) x ON x.entry_id = e.id
SET e.cost = ROUND(x.cost, 4), e.version = e.version + 1
WHERE e.kind = 'task' AND e.cost <> ROUND(x.cost, 4);
-- An assembly costs what is in it, tasks among that.
UPDATE price_entries e
JOIN (SELECT ep.entry_id, SUM(p.cost * ep.quantity) AS cost FROM price_entry_parts ep JOIN price_entries p ON p.id = ep.part_id GROUP BY ep.entry_id) x ON x.entry_id = e.id
SET e.cost = ROUND(x.cost, 4), e.version = e.version + 1
WHERE e.kind = 'assembly' AND e.cost <> ROUND(x.cost, 4);
