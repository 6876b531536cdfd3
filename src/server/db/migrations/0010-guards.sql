-- A session ends so many hours after its sign-in, however busy; and browsers that somebody has signed in with before.
ALTER TABLE setting ADD COLUMN IF NOT EXISTS most_session_hours INT NOT NULL DEFAULT 12;

CREATE TABLE IF NOT EXISTS known_device (
  token_hash BINARY(32) NOT NULL PRIMARY KEY,
  account CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  seen_at DATETIME(3) NOT NULL,
  KEY known_device_account (account),
  CONSTRAINT known_device_account FOREIGN KEY (account) REFERENCES account (id) ON DELETE CASCADE
) ENGINE=InnoDB;

-- When each part of the application that runs by itself was last heard of.
CREATE TABLE IF NOT EXISTS heartbeat (
  part VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  at DATETIME(3) NOT NULL
) ENGINE=InnoDB;

-- Files for importing are kept sealed from here on; what was kept in the clear goes.
DELETE FROM import_file;
