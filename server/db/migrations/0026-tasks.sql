-- What somebody is to do about a work order, a quote or a customer, by a day.
CREATE TABLE tasks (
  id UUID PRIMARY KEY, what VARCHAR(300) NOT NULL, due_on DATE NULL, owner_id UUID NOT NULL, about ENUM('work','quote','customer') NOT NULL, subject_id UUID NOT NULL,
  customer_id UUID NOT NULL, made_by UUID NOT NULL, made_at DATETIME(3) NOT NULL, done_by UUID NULL, done_at DATETIME(3) NULL, version INT NOT NULL DEFAULT 1,
  FOREIGN KEY (owner_id) REFERENCES people (id), FOREIGN KEY (made_by) REFERENCES people (id), FOREIGN KEY (done_by) REFERENCES people (id),
  FOREIGN KEY (customer_id) REFERENCES customers (id), KEY (subject_id), KEY (done_at, owner_id, due_on)
);
