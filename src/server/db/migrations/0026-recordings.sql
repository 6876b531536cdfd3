-- Recordings of calls: their sound in parts, who heard them, and how many days they are kept (NULL: as long as their calls).
CREATE TABLE IF NOT EXISTS recording (
  id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  call_started DATETIME(3) NOT NULL,
  call_id VARCHAR(64) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL,
  seconds DOUBLE NOT NULL,
  peaks JSON NOT NULL,
  UNIQUE KEY recording_call (call_started, call_id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;
CREATE TABLE IF NOT EXISTS recording_sound (
  recording CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  part INT NOT NULL,
  samples MEDIUMBLOB NOT NULL,
  PRIMARY KEY (recording, part),
  CONSTRAINT recording_sound_recording FOREIGN KEY (recording) REFERENCES recording (id) ON DELETE CASCADE
) ENGINE=InnoDB;
CREATE TABLE IF NOT EXISTS recording_heard (
  recording CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  at DATETIME(3) NOT NULL,
  account CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  by_name VARCHAR(80) NOT NULL,
  KEY recording_heard_at (recording, at),
  CONSTRAINT recording_heard_recording FOREIGN KEY (recording) REFERENCES recording (id) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;
ALTER TABLE setting ADD COLUMN IF NOT EXISTS keep_recordings_days SMALLINT UNSIGNED NULL DEFAULT 90;
