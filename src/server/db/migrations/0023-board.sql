-- Who is told of a queue, its public page, and what the exchange said last of it.
ALTER TABLE queue
  ADD COLUMN IF NOT EXISTS tells_abandoned BOOLEAN NOT NULL DEFAULT FALSE,
  ADD COLUMN IF NOT EXISTS tells_wait_seconds INT NULL,
  ADD COLUMN IF NOT EXISTS tells_nobody BOOLEAN NOT NULL DEFAULT FALSE,
  ADD COLUMN IF NOT EXISTS answer_within_seconds INT NOT NULL DEFAULT 20,
  ADD COLUMN IF NOT EXISTS call_page VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NULL;
ALTER TABLE queue ADD UNIQUE INDEX IF NOT EXISTS queue_call_page (call_page);
CREATE TABLE IF NOT EXISTS queue_managers (
  owner CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  position INT NOT NULL,
  target CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  PRIMARY KEY (owner, position),
  UNIQUE KEY queue_managers_once (owner, target),
  CONSTRAINT queue_managers_owner FOREIGN KEY (owner) REFERENCES `queue` (id) ON DELETE CASCADE,
  CONSTRAINT queue_managers_target FOREIGN KEY (target) REFERENCES `person` (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;
CREATE TABLE IF NOT EXISTS queue_now (
  queue CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  at DATETIME(3) NOT NULL,
  waiting JSON NOT NULL,
  agents JSON NOT NULL,
  told JSON NOT NULL
) ENGINE=InnoDB;
CREATE TABLE IF NOT EXISTS callback_request (
  id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  queue CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  at DATETIME(3) NOT NULL,
  calling VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  name VARCHAR(80) NOT NULL,
  done_at DATETIME(3) NULL,
  done_by CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  KEY callback_open (queue, done_at, at)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;
