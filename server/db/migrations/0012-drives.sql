-- Whether the drive to the first visit and the one home lie outside the working hours: each firm says so for itself.
ALTER TABLE company ADD drives_outside BOOLEAN NOT NULL DEFAULT FALSE;
