-- Kinds of work are the firm's own. Where work has kinds of before, they stay.
ALTER TABLE company ADD COLUMN work_kinds JSON NOT NULL DEFAULT '[]';
UPDATE company SET work_kinds = '[
  {"code":"repair","name":"repair","minutes":60,"skills":[],"retired":false},
  {"code":"no_water","name":"no water","minutes":60,"skills":[],"retired":false},
  {"code":"service","name":"service","minutes":60,"skills":[],"retired":false},
  {"code":"installation","name":"installation","minutes":60,"skills":[],"retired":false},
  {"code":"water_test","name":"water test","minutes":60,"skills":[],"retired":false},
  {"code":"quote_visit","name":"quote visit","minutes":60,"skills":[],"retired":false}
]' WHERE EXISTS (SELECT 1 FROM work_orders WHERE kind IN ('no_water', 'water_test'));
