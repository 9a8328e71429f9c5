-- What code decides by is a code. Kinds of work, details that a work order copied, and where a price is
-- from were kept as phrases for people.
UPDATE work_orders SET kind = REPLACE(REPLACE(kind, ' ', '_'), '-', '_') WHERE kind RLIKE '[ -]';

UPDATE calls
SET draft = JSON_SET(draft, '$.kind', REPLACE(JSON_VALUE(draft, '$.kind'), ' ', '_'))
WHERE JSON_VALUE(draft, '$.kind') LIKE '% %';

RENAME TABLE IF EXISTS looks TO saved_filters;

UPDATE saved_filters
SET filter = JSON_SET(filter, '$.kind', REPLACE(JSON_VALUE(filter, '$.kind'), ' ', '_'))
WHERE JSON_VALUE(filter, '$.kind') LIKE '% %';

-- A name of a field, with its quotation marks and its colon, cannot stand within a text.
UPDATE work_orders
SET details = REPLACE(REPLACE(REPLACE(REPLACE(REPLACE(REPLACE(REPLACE(REPLACE(REPLACE(REPLACE(REPLACE(
  REPLACE(details, '"telephone":', '"phone":'), '"second telephone":', '"phone2":'),
  '"mail address":', '"email":'), '"second mail address":', '"email2":'),
  '"billing address":', '"billingLine1":'), '"billing town":', '"billingTown":'),
  '"billing postcode":', '"billingPostcode":'), '"site":', '"siteName":'),
  '"site address":', '"siteLine1":'), '"site town":', '"siteTown":'),
  '"site postcode":', '"sitePostcode":'), '"access note":', '"accessNote":');

ALTER TABLE work_lines
  ADD price_source ENUM('free', 'typed', 'work_order', 'customer', 'book') NOT NULL DEFAULT 'book'
  AFTER part_number;

ALTER TABLE quote_lines
  ADD price_source ENUM('free', 'typed', 'work_order', 'customer', 'book') NOT NULL DEFAULT 'book'
  AFTER part_number;

UPDATE work_lines
SET
  price_source = CASE price_from
    WHEN 'a call-back is without charge' THEN 'free'
    WHEN 'typed here' THEN 'typed'
    WHEN 'agreed for this work order' THEN 'work_order'
    WHEN 'agreed with this customer' THEN 'customer'
    ELSE 'book' END,
  price_from = IF(price_from = 'price book', '', price_from);

UPDATE quote_lines
SET
  price_source = CASE price_from
    WHEN 'a call-back is without charge' THEN 'free'
    WHEN 'typed here' THEN 'typed'
    WHEN 'agreed for this work order' THEN 'work_order'
    WHEN 'agreed with this customer' THEN 'customer'
    ELSE 'book' END,
  price_from = IF(price_from = 'price book', '', price_from);
