-- Rehearsals kept as tests: the call, what was done in it, what held, and how it went in which version of the draft.
CREATE TABLE IF NOT EXISTS rehearsal (
  id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  `name` VARCHAR(80) NOT NULL,
  question JSON NOT NULL,
  situation JSON NOT NULL,
  expects JSON NOT NULL,
  draft_version BIGINT NOT NULL,
  account CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  at DATETIME(3) NOT NULL
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

-- Music for those who wait.
ALTER TABLE site
  ADD COLUMN IF NOT EXISTS music CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL;
ALTER TABLE site
  ADD CONSTRAINT FOREIGN KEY IF NOT EXISTS site_music (music) REFERENCES prompt (id);
ALTER TABLE queue
  ADD COLUMN IF NOT EXISTS music CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL;
ALTER TABLE queue
  ADD CONSTRAINT FOREIGN KEY IF NOT EXISTS queue_music (music) REFERENCES prompt (id);

-- What the exchange says itself, spoken at set-up.
CREATE TABLE IF NOT EXISTS phrase_sound (
  phrase VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  `language` VARCHAR(35) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  said CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  sound CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  PRIMARY KEY (phrase, `language`),
  CONSTRAINT phrase_sound_sound FOREIGN KEY (sound) REFERENCES sound (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;
