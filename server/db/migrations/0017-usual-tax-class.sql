-- Which class of taxes things usually have, and which one work has: until now the classes that are called
-- so, by name.
ALTER TABLE tax_classes ADD COLUMN usual_for ENUM('goods', 'work') NULL;

UPDATE tax_classes SET usual_for = id WHERE id IN ('goods', 'work');

ALTER TABLE tax_classes ADD UNIQUE KEY usual_for (usual_for);
