-- Tokens that are there already say by mail that they end, too.
INSERT IGNORE INTO jobs (kind, job_key, payload, run_at, created_at)
  SELECT 'token-ends', SHA2(id, 256), JSON_OBJECT('token', SHA2(id, 256)), expires_at - INTERVAL 7 DAY, UTC_TIMESTAMP(3) FROM sessions
  WHERE kind = 'token' AND expires_at > UTC_TIMESTAMP(3) + INTERVAL 7 DAY;
