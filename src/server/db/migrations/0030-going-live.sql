-- What of the draft was left for later when a revision was made, and from which draft version its acts are looked for.
ALTER TABLE revision
  ADD COLUMN IF NOT EXISTS left_keys JSON NULL,
  ADD COLUMN IF NOT EXISTS acts_from BIGINT NULL;

-- How the organisation goes live.
ALTER TABLE organisation
  ADD COLUMN IF NOT EXISTS second_person TINYINT(1) NOT NULL DEFAULT 0,
  ADD COLUMN IF NOT EXISTS quiet_times VARCHAR(1000) NULL;

-- What is to go live when somebody agrees or when its time comes: whole as it was read, whatever becomes of the draft meanwhile.
CREATE TABLE IF NOT EXISTS going_live (
  id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  state VARCHAR(30) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  due DATETIME(3) NULL,
  document LONGBLOB NOT NULL,
  checksum BINARY(32) NOT NULL,
  draft_version BIGINT NOT NULL,
  base INT NOT NULL,
  edits INT NOT NULL,
  left_keys JSON NULL,
  note VARCHAR(500) NOT NULL,
  override VARCHAR(500) NOT NULL,
  tell JSON NOT NULL,
  account CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  agreed_by CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  made_at DATETIME(3) NOT NULL,
  ended_at DATETIME(3) NULL,
  outcome VARCHAR(1000) NOT NULL DEFAULT '',
  revision INT NULL,
  KEY going_live_due (state, due),
  CONSTRAINT going_live_account FOREIGN KEY (account) REFERENCES account (id),
  CONSTRAINT going_live_agreed FOREIGN KEY (agreed_by) REFERENCES account (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

-- Problems that somebody looked at and leaves as they are, with a reason and an end.
CREATE TABLE IF NOT EXISTS muted_problem (
  id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  type VARCHAR(60) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  object_kind VARCHAR(30) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  object_id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  reason VARCHAR(300) NOT NULL,
  until DATETIME(3) NOT NULL,
  account CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  made_at DATETIME(3) NOT NULL,
  UNIQUE KEY muted_problem_once (type, object_kind, object_id),
  CONSTRAINT muted_problem_account FOREIGN KEY (account) REFERENCES account (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;
