-- The schedule goes on: visits of several technicians, further visits, call-backs, work that is parked; people as they are employed; looks that a person keeps;
-- texts beside mails, and messages about visits; where technicians are.
CREATE TABLE visit_crew (visit_id UUID NOT NULL, person_id UUID NOT NULL, PRIMARY KEY (visit_id, person_id), KEY (person_id), FOREIGN KEY (visit_id) REFERENCES visits (id), FOREIGN KEY (person_id) REFERENCES people (id));
ALTER TABLE visits ADD note VARCHAR(200) NOT NULL DEFAULT '';
ALTER TABLE people ADD kind ENUM('employee','subcontractor','apprentice') NOT NULL DEFAULT 'employee', ADD goes_with UUID NULL, ADD starts_at ENUM('home','yard') NOT NULL DEFAULT 'home', ADD ends_at ENUM('home','yard') NOT NULL DEFAULT 'home',
  ADD FOREIGN KEY (goes_with) REFERENCES people (id);
ALTER TABLE work_orders ADD callback_of UUID NULL, ADD follow_up VARCHAR(60) NOT NULL DEFAULT '', ADD follow_up_on DATE NULL, ADD KEY (follow_up, follow_up_on), ADD FOREIGN KEY (callback_of) REFERENCES work_orders (id);
CREATE TABLE looks (id UUID PRIMARY KEY, person_id UUID NOT NULL, name VARCHAR(60) NOT NULL, filter JSON NOT NULL, UNIQUE (person_id, name), FOREIGN KEY (person_id) REFERENCES people (id));
ALTER TABLE company ADD visit_messages JSON NOT NULL DEFAULT '{}';
ALTER TABLE messages ADD channel ENUM('mail','text') NOT NULL DEFAULT 'mail', ADD visit_id UUID NULL, ADD KEY (visit_id, kind), ADD FOREIGN KEY (visit_id) REFERENCES visits (id), MODIFY attach ENUM('none','invoice','receipt','quote','invitation') NOT NULL DEFAULT 'none';
CREATE TABLE positions (person_id UUID PRIMARY KEY, at DATETIME(3) NOT NULL, lat DOUBLE NOT NULL, lon DOUBLE NOT NULL, FOREIGN KEY (person_id) REFERENCES people (id));
