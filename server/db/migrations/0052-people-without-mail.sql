-- Who does not sign in has no mail address; several people who go together are booked as one.
ALTER TABLE people MODIFY email VARCHAR(160) NULL,
  MODIFY kind ENUM('employee','subcontractor','apprentice','crew') NOT NULL DEFAULT 'employee';
