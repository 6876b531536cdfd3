-- The one-time code that opens the first page of an organisation without an owner.
CREATE TABLE IF NOT EXISTS first_code (
  id TINYINT NOT NULL PRIMARY KEY CHECK (id = 1),
  code_hash BINARY(32) NOT NULL,
  at DATETIME(3) NOT NULL
) ENGINE=InnoDB;
