-- Mailboxes with several owners and settings of their own; own rules of presence states; numbers that become active on a day.
CREATE TABLE IF NOT EXISTS mailbox_owners (
  owner CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  position INT NOT NULL,
  target CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  PRIMARY KEY (owner, position),
  UNIQUE KEY mailbox_owners_once (owner, target),
  CONSTRAINT mailbox_owners_owner FOREIGN KEY (owner) REFERENCES mailbox (id) ON DELETE CASCADE,
  CONSTRAINT mailbox_owners_target FOREIGN KEY (target) REFERENCES person (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

BEGIN NOT ATOMIC IF EXISTS (SELECT 1 FROM information_schema.columns WHERE table_schema = DATABASE() AND table_name = 'mailbox' AND column_name = 'owner') THEN INSERT IGNORE INTO mailbox_owners (owner, position, target) SELECT id, 0, owner FROM mailbox WHERE owner IS NOT NULL; END IF; END;

ALTER TABLE mailbox DROP FOREIGN KEY IF EXISTS mailbox_owner;

ALTER TABLE mailbox DROP COLUMN IF EXISTS owner;

ALTER TABLE mailbox
  ADD COLUMN IF NOT EXISTS `on` TINYINT(1) NOT NULL DEFAULT 1,
  ADD COLUMN IF NOT EXISTS attach_sound TINYINT(1) NOT NULL DEFAULT 0,
  ADD COLUMN IF NOT EXISTS after_mail VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT 'keep',
  ADD COLUMN IF NOT EXISTS announce_number TINYINT(1) NOT NULL DEFAULT 1,
  ADD COLUMN IF NOT EXISTS announce_time TINYINT(1) NOT NULL DEFAULT 1,
  ADD COLUMN IF NOT EXISTS most_messages INT NOT NULL DEFAULT 100,
  ADD COLUMN IF NOT EXISTS longest_message_seconds INT NOT NULL DEFAULT 180,
  ADD COLUMN IF NOT EXISTS greeting CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  ADD COLUMN IF NOT EXISTS greeting_busy CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  ADD COLUMN IF NOT EXISTS greeting_away CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL;

ALTER TABLE mailbox
  ADD CONSTRAINT mailbox_greeting FOREIGN KEY IF NOT EXISTS (greeting) REFERENCES prompt (id),
  ADD CONSTRAINT mailbox_greeting_busy FOREIGN KEY IF NOT EXISTS (greeting_busy) REFERENCES prompt (id),
  ADD CONSTRAINT mailbox_greeting_away FOREIGN KEY IF NOT EXISTS (greeting_away) REFERENCES prompt (id);

ALTER TABLE number ADD COLUMN IF NOT EXISTS active_from VARCHAR(10) CHARACTER SET ascii COLLATE ascii_bin NULL;

ALTER TABLE person ADD COLUMN IF NOT EXISTS language VARCHAR(35) NOT NULL DEFAULT '';

ALTER TABLE organisation ADD COLUMN IF NOT EXISTS pin_least_digits INT NOT NULL DEFAULT 4;

CREATE TABLE IF NOT EXISTS presence_choice (
  id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  extension CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  rule CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  internal VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  internal_to CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  outside VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  outside_to CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  note TEXT NOT NULL,
  row_version INT NOT NULL DEFAULT 1,
  UNIQUE KEY presence_choice_once (extension, rule),
  CONSTRAINT presence_choice_extension FOREIGN KEY (extension) REFERENCES extension (id),
  CONSTRAINT presence_choice_rule FOREIGN KEY (rule) REFERENCES presence_rule (id),
  CONSTRAINT presence_choice_internal_to FOREIGN KEY (internal_to) REFERENCES destination (id),
  CONSTRAINT presence_choice_outside_to FOREIGN KEY (outside_to) REFERENCES destination (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;
