-- Whoever is somewhere is found by that, however many visits there were.
ALTER TABLE visits ADD KEY (state, start_at);
-- Lists are searched by the words that something begins with, from an index of words, not by reading every row.
ALTER TABLE work_orders ADD own_words TEXT NOT NULL DEFAULT '';
ALTER TABLE invoices ADD own_words TEXT NOT NULL DEFAULT '';
UPDATE work_orders SET own_words = COALESCE(JSON_EXTRACT(custom, '$.*'), '');
UPDATE invoices SET own_words = COALESCE(JSON_EXTRACT(custom, '$.*'), '');
ALTER TABLE customers ADD FULLTEXT KEY words (search);
ALTER TABLE sites ADD FULLTEXT KEY words (search);
ALTER TABLE work_orders ADD FULLTEXT KEY words (number, title, order_number, own_words);
ALTER TABLE invoices ADD FULLTEXT KEY words (number, own_words);
ALTER TABLE quotes ADD FULLTEXT KEY words (number, title, order_number);
ALTER TABLE payments ADD FULLTEXT KEY words (number, reference);
ALTER TABLE messages ADD FULLTEXT KEY words (subject);
ALTER TABLE messages ADD FULLTEXT KEY addresses (recipients);
ALTER TABLE agreements ADD FULLTEXT KEY words (plan);
ALTER TABLE price_entries ADD FULLTEXT KEY words (code, name, synonyms, category);
