-- Whether tax is charged is asked on the day of the invoice, as its certificate is; what was true when the work was booked is not kept.
ALTER TABLE work_orders DROP COLUMN tax_exempt;
