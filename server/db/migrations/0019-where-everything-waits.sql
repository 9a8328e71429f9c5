-- A work order whose visits all came to nothing waits with a visit of its own for another time: which one it comes again for.
ALTER TABLE visits ADD again_of UUID NULL, ADD FOREIGN KEY (again_of) REFERENCES visits (id);
-- What whoever stood before a closed door proposes.
ALTER TABLE visits ADD next_step ENUM('come_again', 'ring', 'give_up') NULL;
-- Visits that were cancelled with their work order come back with it.
ALTER TABLE visits ADD cancelled_with_work BOOLEAN NOT NULL DEFAULT FALSE;
-- From that hour on, what was planned for the day and not begun waits for another time.
ALTER TABLE company ADD closes_at TIME NOT NULL DEFAULT '18:00:00';
-- Hours that no line charges for, while the work order waits to be billed.
ALTER TABLE work_orders ADD uncovered_seconds INT NOT NULL DEFAULT 0;
INSERT INTO visits (id, work_order_id, again_of, duration_seconds, note, findings)
  SELECT UUID(), w.id, (SELECT v.id FROM visits v WHERE v.work_order_id = w.id ORDER BY v.start_at DESC, v.id LIMIT 1), 3600, '', ''
  FROM work_orders w WHERE w.state = 'needs_slot' AND NOT w.cancelled AND NOT w.closed
    AND NOT EXISTS (SELECT 1 FROM visits v WHERE v.work_order_id = w.id AND v.state IN ('planned', 'driving', 'on_site', 'paused'));
