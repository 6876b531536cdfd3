-- What must always hold, of all calls of a kind.
CREATE TABLE IF NOT EXISTS `promise` (
  id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  name VARCHAR(80) NOT NULL,
  firm TINYINT(1) NOT NULL DEFAULT 0,
  `from` VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  dial_kinds JSON NOT NULL,
  dial_map VARCHAR(4096) CHARACTER SET ascii COLLATE ascii_bin NULL,
  `when` VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  hours CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  weekly VARCHAR(1000) NULL,
  must VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  ends JSON NOT NULL,
  seconds INT NOT NULL DEFAULT 20,
  trunks_down TINYINT(1) NOT NULL DEFAULT 0,
  note TEXT NOT NULL,
  row_version INT NOT NULL DEFAULT 1,
  CONSTRAINT promise_hours FOREIGN KEY (hours) REFERENCES `hours` (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

CREATE TABLE IF NOT EXISTS promise_from_sites (
  owner CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  position INT NOT NULL,
  target CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  PRIMARY KEY (owner, position),
  UNIQUE KEY promise_from_sites_once (owner, target),
  CONSTRAINT promise_from_sites_owner FOREIGN KEY (owner) REFERENCES `promise` (id) ON DELETE CASCADE,
  CONSTRAINT promise_from_sites_target FOREIGN KEY (target) REFERENCES `site` (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

CREATE TABLE IF NOT EXISTS promise_from_classes (
  owner CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  position INT NOT NULL,
  target CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  PRIMARY KEY (owner, position),
  UNIQUE KEY promise_from_classes_once (owner, target),
  CONSTRAINT promise_from_classes_owner FOREIGN KEY (owner) REFERENCES `promise` (id) ON DELETE CASCADE,
  CONSTRAINT promise_from_classes_target FOREIGN KEY (target) REFERENCES `class` (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

CREATE TABLE IF NOT EXISTS promise_from_teams (
  owner CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  position INT NOT NULL,
  target CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  PRIMARY KEY (owner, position),
  UNIQUE KEY promise_from_teams_once (owner, target),
  CONSTRAINT promise_from_teams_owner FOREIGN KEY (owner) REFERENCES `promise` (id) ON DELETE CASCADE,
  CONSTRAINT promise_from_teams_target FOREIGN KEY (target) REFERENCES `team` (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

CREATE TABLE IF NOT EXISTS promise_from_phones (
  owner CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  position INT NOT NULL,
  target CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  PRIMARY KEY (owner, position),
  UNIQUE KEY promise_from_phones_once (owner, target),
  CONSTRAINT promise_from_phones_owner FOREIGN KEY (owner) REFERENCES `promise` (id) ON DELETE CASCADE,
  CONSTRAINT promise_from_phones_target FOREIGN KEY (target) REFERENCES `extension` (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

CREATE TABLE IF NOT EXISTS promise_from_numbers (
  owner CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  position INT NOT NULL,
  target CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  PRIMARY KEY (owner, position),
  UNIQUE KEY promise_from_numbers_once (owner, target),
  CONSTRAINT promise_from_numbers_owner FOREIGN KEY (owner) REFERENCES `promise` (id) ON DELETE CASCADE,
  CONSTRAINT promise_from_numbers_target FOREIGN KEY (target) REFERENCES `number` (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

CREATE TABLE IF NOT EXISTS promise_from_trunks (
  owner CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  position INT NOT NULL,
  target CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  PRIMARY KEY (owner, position),
  UNIQUE KEY promise_from_trunks_once (owner, target),
  CONSTRAINT promise_from_trunks_owner FOREIGN KEY (owner) REFERENCES `promise` (id) ON DELETE CASCADE,
  CONSTRAINT promise_from_trunks_target FOREIGN KEY (target) REFERENCES `trunk` (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

CREATE TABLE IF NOT EXISTS promise_places (
  owner CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  position INT NOT NULL,
  target CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  PRIMARY KEY (owner, position),
  UNIQUE KEY promise_places_once (owner, target),
  CONSTRAINT promise_places_owner FOREIGN KEY (owner) REFERENCES `promise` (id) ON DELETE CASCADE,
  CONSTRAINT promise_places_target FOREIGN KEY (target) REFERENCES `destination` (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;
