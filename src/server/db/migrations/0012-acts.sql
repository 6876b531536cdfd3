-- What was done in one act has a name, and who was told that it was taken back.
CREATE TABLE IF NOT EXISTS act (
  id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  name VARCHAR(300) NOT NULL,
  account CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  draft_version BIGINT NOT NULL,
  at DATETIME(3) NOT NULL,
  KEY act_at (at),
  KEY act_version (draft_version),
  KEY act_account (account, draft_version),
  CONSTRAINT act_account FOREIGN KEY (account) REFERENCES account (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

-- Acts that were made before they had names: history names them by what they did.
INSERT IGNORE INTO act (id, name, account, draft_version, at)
  SELECT batch, '', MIN(account), MIN(draft_version), MIN(at) FROM journal GROUP BY batch;

-- What somebody is told that a colleague did to their work.
CREATE TABLE IF NOT EXISTS told (
  id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  account CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  sentence VARCHAR(500) NOT NULL,
  act CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  at DATETIME(3) NOT NULL,
  seen TINYINT(1) NOT NULL DEFAULT 0,
  KEY told_account (account, seen, at),
  CONSTRAINT told_account FOREIGN KEY (account) REFERENCES account (id) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

-- Why a revision went live in spite of errors.
ALTER TABLE revision ADD COLUMN IF NOT EXISTS override VARCHAR(500) NOT NULL DEFAULT '';
