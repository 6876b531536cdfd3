-- Limits of the organisation; long work as rows that a worker takes; files that wait to be imported.
CREATE TABLE IF NOT EXISTS organisation_limit (
  name VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  most INT NOT NULL
) ENGINE=InnoDB;

CREATE TABLE IF NOT EXISTS job (
  id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  kind VARCHAR(30) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  input JSON NOT NULL,
  account CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  address VARCHAR(45) NOT NULL,
  state VARCHAR(12) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT 'waiting',
  made_at DATETIME(3) NOT NULL,
  lease_until DATETIME(3) NULL,
  stop_asked TINYINT(1) NOT NULL DEFAULT 0,
  done INT NOT NULL DEFAULT 0,
  total INT NOT NULL DEFAULT 0,
  doing VARCHAR(120) NOT NULL DEFAULT '',
  result JSON NULL,
  ended_at DATETIME(3) NULL,
  KEY job_waiting (state, made_at),
  KEY job_account (account, made_at),
  CONSTRAINT job_account FOREIGN KEY (account) REFERENCES account (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

CREATE TABLE IF NOT EXISTS import_file (
  id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  name VARCHAR(200) NOT NULL,
  content LONGBLOB NOT NULL,
  account CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  at DATETIME(3) NOT NULL,
  CONSTRAINT import_file_account FOREIGN KEY (account) REFERENCES account (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;
