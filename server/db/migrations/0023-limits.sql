-- How far each role may go, where the owner says otherwise than is usual; and what was asked of somebody who may go further.
ALTER TABLE company ADD limits JSON NOT NULL DEFAULT '{}';
CREATE TABLE asks (
  id UUID PRIMARY KEY, route VARCHAR(40) CHARACTER SET ascii NOT NULL, params JSON NOT NULL, body JSON NOT NULL, what VARCHAR(300) NOT NULL, reason VARCHAR(200) NOT NULL,
  asked_by UUID NOT NULL, asked_at DATETIME(3) NOT NULL, state ENUM('asked','given','refused','withdrawn') NOT NULL DEFAULT 'asked',
  answered_by UUID NULL, answered_at DATETIME(3) NULL, answer VARCHAR(200) NOT NULL DEFAULT '', work_order_id UUID NOT NULL, customer_id UUID NOT NULL,
  FOREIGN KEY (asked_by) REFERENCES people (id), FOREIGN KEY (answered_by) REFERENCES people (id), FOREIGN KEY (work_order_id) REFERENCES work_orders (id),
  FOREIGN KEY (customer_id) REFERENCES customers (id), KEY (state)
);
