-- Levels, hours and language of queues; stages of ring groups one by one, and members' own forwarding; steps by hours and presence.
ALTER TABLE queue
  ADD COLUMN IF NOT EXISTS second_after_seconds INT NOT NULL DEFAULT 30,
  ADD COLUMN IF NOT EXISTS third_after_seconds INT NOT NULL DEFAULT 60,
  ADD COLUMN IF NOT EXISTS priority INT NOT NULL DEFAULT 5,
  ADD COLUMN IF NOT EXISTS language VARCHAR(35) NOT NULL DEFAULT '',
  ADD COLUMN IF NOT EXISTS hours CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  ADD COLUMN IF NOT EXISTS closed CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  ADD COLUMN IF NOT EXISTS closing_empties BOOLEAN NOT NULL DEFAULT FALSE;
ALTER TABLE queue
  ADD CONSTRAINT FOREIGN KEY IF NOT EXISTS queue_hours (hours) REFERENCES hours (id),
  ADD CONSTRAINT FOREIGN KEY IF NOT EXISTS queue_closed (closed) REFERENCES destination (id);
ALTER TABLE ring_group
  ADD COLUMN IF NOT EXISTS stages VARCHAR(120) NOT NULL DEFAULT '',
  ADD COLUMN IF NOT EXISTS forwards BOOLEAN NOT NULL DEFAULT FALSE;
ALTER TABLE reach_step
  ADD COLUMN IF NOT EXISTS hours CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  ADD COLUMN IF NOT EXISTS `when` VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT 'open';
ALTER TABLE reach_step
  ADD CONSTRAINT FOREIGN KEY IF NOT EXISTS reach_step_hours (hours) REFERENCES hours (id);
CREATE TABLE IF NOT EXISTS queue_second_agents (
  owner CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  position INT NOT NULL,
  target CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  PRIMARY KEY (owner, position),
  UNIQUE KEY queue_second_agents_once (owner, target),
  CONSTRAINT queue_second_agents_owner FOREIGN KEY (owner) REFERENCES `queue` (id) ON DELETE CASCADE,
  CONSTRAINT queue_second_agents_target FOREIGN KEY (target) REFERENCES `extension` (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;
CREATE TABLE IF NOT EXISTS queue_third_agents (
  owner CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  position INT NOT NULL,
  target CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  PRIMARY KEY (owner, position),
  UNIQUE KEY queue_third_agents_once (owner, target),
  CONSTRAINT queue_third_agents_owner FOREIGN KEY (owner) REFERENCES `queue` (id) ON DELETE CASCADE,
  CONSTRAINT queue_third_agents_target FOREIGN KEY (target) REFERENCES `extension` (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;
CREATE TABLE IF NOT EXISTS reach_step_presences (
  owner CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  position INT NOT NULL,
  target CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  PRIMARY KEY (owner, position),
  UNIQUE KEY reach_step_presences_once (owner, target),
  CONSTRAINT reach_step_presences_owner FOREIGN KEY (owner) REFERENCES `reach_step` (id) ON DELETE CASCADE,
  CONSTRAINT reach_step_presences_target FOREIGN KEY (target) REFERENCES `presence_rule` (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;
