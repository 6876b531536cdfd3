-- The draft's version, its journal, the revisions, secrets and the state beside the plan.
CREATE TABLE IF NOT EXISTS draft (
  id TINYINT NOT NULL PRIMARY KEY,
  version BIGINT NOT NULL
) ENGINE=InnoDB;

INSERT IGNORE INTO draft (id, version) VALUES (1, 0);

CREATE TABLE IF NOT EXISTS journal (
  id BIGINT NOT NULL AUTO_INCREMENT PRIMARY KEY,
  batch CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  draft_version BIGINT NOT NULL,
  object_kind VARCHAR(30) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  object_id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  before_value JSON NULL,
  after_value JSON NULL,
  account CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  at DATETIME(3) NOT NULL,
  undone TINYINT(1) NOT NULL DEFAULT 0,
  KEY journal_object (object_kind, object_id, id),
  KEY journal_account (account, id),
  CONSTRAINT journal_account FOREIGN KEY (account) REFERENCES account (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

CREATE TABLE IF NOT EXISTS revision (
  number INT NOT NULL PRIMARY KEY,
  document LONGBLOB NOT NULL,
  checksum BINARY(32) NOT NULL,
  draft_version BIGINT NOT NULL,
  edits INT NOT NULL,
  note VARCHAR(500) NOT NULL,
  account CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  at DATETIME(3) NOT NULL,
  CONSTRAINT revision_account FOREIGN KEY (account) REFERENCES account (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

CREATE TABLE IF NOT EXISTS secret (
  owner CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  purpose VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  version INT NOT NULL,
  value VARBINARY(512) NOT NULL,
  account CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  at DATETIME(3) NOT NULL,
  PRIMARY KEY (owner, purpose, version)
) ENGINE=InnoDB;

CREATE TABLE IF NOT EXISTS state_entry (
  id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  kind VARCHAR(30) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  subject CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  value JSON NOT NULL,
  since DATETIME(3) NOT NULL,
  until DATETIME(3) NULL,
  account CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  KEY state_subject (subject, kind, since),
  KEY state_times (kind, since, until)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;
