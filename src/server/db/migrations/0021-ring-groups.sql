-- Ring groups with outside members, by stages or at random, with a mark before the caller and music.
ALTER TABLE ring_group
  ADD COLUMN IF NOT EXISTS key_to_take BOOLEAN NOT NULL DEFAULT TRUE,
  ADD COLUMN IF NOT EXISTS stage_seconds INT NOT NULL DEFAULT 5,
  ADD COLUMN IF NOT EXISTS stage_members INT NOT NULL DEFAULT 1,
  ADD COLUMN IF NOT EXISTS skip_busy BOOLEAN NOT NULL DEFAULT FALSE,
  ADD COLUMN IF NOT EXISTS shown_name VARCHAR(40) NOT NULL DEFAULT '',
  ADD COLUMN IF NOT EXISTS music CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL;
ALTER TABLE ring_group
  ADD CONSTRAINT FOREIGN KEY IF NOT EXISTS ring_group_music (music) REFERENCES `prompt` (id);
CREATE TABLE IF NOT EXISTS ring_group_outside (
  owner CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  position INT NOT NULL,
  target CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  PRIMARY KEY (owner, position),
  UNIQUE KEY ring_group_outside_once (owner, target),
  CONSTRAINT ring_group_outside_owner FOREIGN KEY (owner) REFERENCES `ring_group` (id) ON DELETE CASCADE,
  CONSTRAINT ring_group_outside_target FOREIGN KEY (target) REFERENCES `outside_number` (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;
