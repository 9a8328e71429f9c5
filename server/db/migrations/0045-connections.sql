-- Outside services, where the firm names them itself; else those of the surroundings hold.
CREATE TABLE connections (
  kind ENUM('mail','text','card','supplier','positions') PRIMARY KEY, address VARCHAR(300) NOT NULL DEFAULT '',
  user_name VARCHAR(160) NOT NULL DEFAULT '', sealed VARCHAR(1000) NOT NULL DEFAULT '', version INT NOT NULL DEFAULT 1
);
