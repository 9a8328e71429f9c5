-- What the customer was last told of a visit: it may differ from what is promised now, and then somebody tells them.
ALTER TABLE visits ADD told_date DATE NULL, ADD told_from TIME NULL, ADD told_to TIME NULL, ADD KEY (state, told_date);
UPDATE visits SET told_date = promise_date, told_from = promise_from, told_to = promise_to WHERE promise_date IS NOT NULL;
-- For which day the customer was reminded: of another day they are reminded again.
ALTER TABLE visits ADD reminded_for DATE NULL;
UPDATE visits v SET reminded_for = DATE(v.start_at) WHERE EXISTS (SELECT 1 FROM messages m WHERE m.visit_id = v.id AND m.kind = 'visit_eve');
-- A message that is not sent any more: what it says does not hold, or somebody let it be.
ALTER TABLE messages MODIFY state ENUM('waiting','delivered','failed','let_be') NOT NULL DEFAULT 'waiting';
