-- Messages of mailboxes, mail that goes out, and people who sign in themselves.
CREATE TABLE IF NOT EXISTS message (
  id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  mailbox CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  received DATETIME(3) NOT NULL,
  calling VARCHAR(40) NULL,
  calling_name VARCHAR(80) NOT NULL DEFAULT '',
  situation VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  seconds DOUBLE NOT NULL,
  peaks JSON NOT NULL,
  heard_at DATETIME(3) NULL,
  marked BOOLEAN NOT NULL DEFAULT FALSE,
  forwarded_by VARCHAR(80) NULL,
  forwarded_note VARCHAR(400) NOT NULL DEFAULT '',
  deleted_at DATETIME(3) NULL,
  KEY message_mailbox (mailbox, deleted_at, received),
  KEY message_deleted (deleted_at)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;
CREATE TABLE IF NOT EXISTS message_sound (
  message CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  part INT NOT NULL,
  samples MEDIUMBLOB NOT NULL,
  PRIMARY KEY (message, part),
  CONSTRAINT message_sound_message FOREIGN KEY (message) REFERENCES message (id) ON DELETE CASCADE
) ENGINE=InnoDB;
CREATE TABLE IF NOT EXISTS message_heard (
  message CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  account CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  at DATETIME(3) NOT NULL,
  PRIMARY KEY (message, account),
  CONSTRAINT message_heard_message FOREIGN KEY (message) REFERENCES message (id) ON DELETE CASCADE,
  CONSTRAINT message_heard_account FOREIGN KEY (account) REFERENCES account (id) ON DELETE CASCADE
) ENGINE=InnoDB;
CREATE TABLE IF NOT EXISTS mail (
  id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  made_at DATETIME(3) NOT NULL,
  recipient VARCHAR(254) NOT NULL,
  subject VARCHAR(200) NOT NULL,
  body VARBINARY(8000) NOT NULL,
  about VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  message CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  sound BOOLEAN NOT NULL DEFAULT FALSE,
  then_delete BOOLEAN NOT NULL DEFAULT FALSE,
  state VARCHAR(10) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT 'waiting',
  attempts INT NOT NULL DEFAULT 0,
  due DATETIME(3) NOT NULL,
  sent_at DATETIME(3) NULL,
  said VARCHAR(300) NOT NULL DEFAULT '',
  KEY mail_due (state, due),
  KEY mail_made (made_at)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;
CREATE TABLE IF NOT EXISTS mail_setting (
  id TINYINT NOT NULL PRIMARY KEY,
  host VARCHAR(253) NOT NULL,
  port INT NOT NULL,
  security VARCHAR(10) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  user_name VARCHAR(200) NOT NULL DEFAULT '',
  password VARBINARY(600) NULL,
  sender VARCHAR(254) NOT NULL,
  pages VARCHAR(200) NOT NULL
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;
ALTER TABLE account ADD COLUMN IF NOT EXISTS person CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL;
ALTER TABLE account ADD UNIQUE INDEX IF NOT EXISTS account_person (person);
CREATE TABLE IF NOT EXISTS invitation (
  token_hash BINARY(32) NOT NULL PRIMARY KEY,
  person CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  sign_in VARCHAR(80) NOT NULL,
  name VARCHAR(80) NOT NULL,
  made_at DATETIME(3) NOT NULL,
  until DATETIME(3) NOT NULL,
  used_at DATETIME(3) NULL,
  KEY invitation_person (person)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;
ALTER TABLE setting ADD COLUMN IF NOT EXISTS people_second_factor BOOLEAN NOT NULL DEFAULT FALSE;
