-- Roles that the firm makes, each as one of ours with more or less given to it; and who has one.
ALTER TABLE company ADD own_roles JSON NOT NULL DEFAULT '[]';
ALTER TABLE people ADD own_role VARCHAR(40) NULL;
