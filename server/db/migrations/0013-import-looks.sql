-- What the pieces of an import's dry run learned: the next piece may be looked at by another process.
CREATE TABLE import_looks (
  seq BIGINT AUTO_INCREMENT PRIMARY KEY, import_id UUID NOT NULL, learned JSON NOT NULL, looked_at DATETIME(3) NOT NULL,
  KEY (import_id, seq), KEY (looked_at)
);
