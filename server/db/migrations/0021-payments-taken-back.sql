-- Why a payment was taken back: a cheque that came back, a card that was charged back, a transfer that was recalled, or a typing error.
ALTER TABLE payments ADD back_reason ENUM('returned','charged_back','recalled','mistyped') NULL;
UPDATE payments SET back_reason = CASE method WHEN 'cheque' THEN 'returned' WHEN 'card' THEN 'charged_back' ELSE 'mistyped' END WHERE bounced_on IS NOT NULL;
