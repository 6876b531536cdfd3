-- Roles made by administrators, second factors, sessions that can be listed, and from where each edit came.
CREATE TABLE IF NOT EXISTS role (
  id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  name VARCHAR(80) NOT NULL UNIQUE,
  grants JSON NOT NULL,
  made_by CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  at DATETIME(3) NOT NULL
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

ALTER TABLE account
  MODIFY COLUMN role CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  ADD COLUMN IF NOT EXISTS totp_secret VARBINARY(200) NULL,
  ADD COLUMN IF NOT EXISTS totp_last_step BIGINT NULL,
  ADD COLUMN IF NOT EXISTS must_change TINYINT(1) NOT NULL DEFAULT 0,
  ADD COLUMN IF NOT EXISTS blocked_at DATETIME(3) NULL;

ALTER TABLE api_token MODIFY COLUMN role CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL;

ALTER TABLE session
  ADD COLUMN IF NOT EXISTS id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT '',
  ADD COLUMN IF NOT EXISTS agent VARCHAR(200) NOT NULL DEFAULT '',
  ADD COLUMN IF NOT EXISTS waits_for_code TINYINT(1) NOT NULL DEFAULT 0;

DELETE FROM session WHERE id = '';

ALTER TABLE session ADD UNIQUE KEY IF NOT EXISTS session_id (id);

ALTER TABLE journal ADD COLUMN IF NOT EXISTS address VARCHAR(45) NOT NULL DEFAULT '';

ALTER TABLE journal ADD KEY IF NOT EXISTS journal_batch (batch);

ALTER TABLE journal ADD KEY IF NOT EXISTS journal_at (at);

ALTER TABLE history ADD KEY IF NOT EXISTS history_object (object_id, id);

UPDATE account SET role = 'owner' WHERE role = 'administrator' AND NOT EXISTS (SELECT 1 FROM (SELECT role FROM account) a WHERE a.role = 'owner');
