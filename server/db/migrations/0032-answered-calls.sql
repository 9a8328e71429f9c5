-- A call that wanted no work is answered: it is at rest without a no.
ALTER TABLE calls MODIFY state ENUM('open','booked','quoted','put_off','declined','answered') NOT NULL DEFAULT 'open', ADD KEY (created_at);
