-- Where postcodes are, from a table that the firm took in: the middle of each.
CREATE TABLE postcodes (
  postcode VARCHAR(16) PRIMARY KEY, town VARCHAR(80) NOT NULL DEFAULT '', lat DOUBLE NOT NULL, lon DOUBLE NOT NULL
);
