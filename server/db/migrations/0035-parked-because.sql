-- Why a work order is put aside, in somebody's own words, beside the list that it is put in.
ALTER TABLE work_orders ADD follow_up_reason VARCHAR(200) NOT NULL DEFAULT '' AFTER follow_up;
