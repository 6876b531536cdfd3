-- Routes that are switched off, time switches for fax, and holiday calendars that know their country; feeds of calendars.
ALTER TABLE inbound_route ADD COLUMN IF NOT EXISTS enabled TINYINT(1) NOT NULL DEFAULT 1;

ALTER TABLE time_switch ADD COLUMN IF NOT EXISTS fax TINYINT(1) NOT NULL DEFAULT 0;

ALTER TABLE holidays
  ADD COLUMN IF NOT EXISTS country CHAR(2) CHARACTER SET ascii COLLATE ascii_bin NULL,
  ADD COLUMN IF NOT EXISTS region VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NULL;

-- A secret address under which a calendar program reads hours; only its hash is kept.
CREATE TABLE IF NOT EXISTS calendar_address (
  id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  hours CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  secret_hash BINARY(32) NOT NULL,
  made_at DATETIME(3) NOT NULL,
  made_by CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  last_read_at DATETIME(3) NULL,
  UNIQUE KEY calendar_address_secret (secret_hash),
  KEY calendar_address_hours (hours)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

-- A calendar of somebody else's that is read for hours, with what came of the last reading.
CREATE TABLE IF NOT EXISTS calendar_feed (
  id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  hours CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  address VARBINARY(2000) NOT NULL,
  shown VARCHAR(200) NOT NULL,
  made_at DATETIME(3) NOT NULL,
  made_by CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  read_at DATETIME(3) NULL,
  outcome VARCHAR(300) NOT NULL DEFAULT '',
  dates JSON NULL,
  UNIQUE KEY calendar_feed_hours (hours)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

-- Phones whose ringing calls a code picks up.
CREATE TABLE IF NOT EXISTS service_code_phones (
  owner CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  position INT NOT NULL,
  target CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  PRIMARY KEY (owner, position),
  UNIQUE KEY service_code_phones_once (owner, target),
  CONSTRAINT service_code_phones_owner FOREIGN KEY (owner) REFERENCES service_code (id) ON DELETE CASCADE,
  CONSTRAINT service_code_phones_target FOREIGN KEY (target) REFERENCES extension (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;
