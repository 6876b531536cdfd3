-- What callers hear: sounds by content, versions of a prompt by language, and what the keys of an attendant can do.
CREATE TABLE IF NOT EXISTS sound (
  id CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  seconds DOUBLE NOT NULL,
  facts JSON NOT NULL,
  made_at DATETIME(3) NOT NULL,
  made_by CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

CREATE TABLE IF NOT EXISTS sound_part (
  sound CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  rate INT NOT NULL,
  part INT NOT NULL,
  samples MEDIUMBLOB NOT NULL,
  PRIMARY KEY (sound, rate, part),
  CONSTRAINT sound_part_sound FOREIGN KEY (sound) REFERENCES sound (id) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

ALTER TABLE prompt
  ADD COLUMN IF NOT EXISTS sound CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NULL,
  ADD COLUMN IF NOT EXISTS versions JSON NOT NULL DEFAULT '[]',
  ADD COLUMN IF NOT EXISTS phrase VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NULL;

ALTER TABLE attendant
  ADD COLUMN IF NOT EXISTS direct_map TEXT CHARACTER SET ascii COLLATE ascii_bin NULL,
  ADD COLUMN IF NOT EXISTS outside_dialling TINYINT(1) NOT NULL DEFAULT 0,
  ADD COLUMN IF NOT EXISTS above CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  ADD COLUMN IF NOT EXISTS `language` VARCHAR(35) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT '',
  ADD COLUMN IF NOT EXISTS shown_name VARCHAR(40) NOT NULL DEFAULT '';

ALTER TABLE attendant
  ADD CONSTRAINT FOREIGN KEY IF NOT EXISTS attendant_above (above) REFERENCES attendant (id);

ALTER TABLE attendant_key
  ADD COLUMN IF NOT EXISTS does VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT 'lead',
  MODIFY COLUMN leads_to CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL;
