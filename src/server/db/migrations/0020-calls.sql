-- Call records, a partition a month (in UTC). Months are split off the last partition by a worker; what is kept too long is dropped by month.
CREATE TABLE IF NOT EXISTS call_record (
  started DATETIME(3) NOT NULL,
  id VARCHAR(64) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL,
  answered DATETIME(3) NULL,
  ended DATETIME(3) NOT NULL,
  way ENUM('in', 'out', 'inside') NOT NULL,
  site CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  `number` VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NULL,
  phone VARCHAR(64) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NULL,
  other VARCHAR(64) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NULL,
  calling_delivered VARCHAR(64) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NULL,
  calling_read VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NULL,
  called_delivered VARCHAR(64) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NULL,
  called_read VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NULL,
  trunk VARCHAR(64) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NULL,
  channel SMALLINT UNSIGNED NULL,
  shown VARCHAR(64) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NULL,
  outcome VARCHAR(12) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  end_kind VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NULL,
  end_id VARCHAR(64) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NULL,
  end_digits VARCHAR(64) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NULL,
  end_label VARCHAR(200) NULL,
  answered_by VARCHAR(64) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NULL,
  queue VARCHAR(64) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NULL,
  agent VARCHAR(64) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NULL,
  waited_seconds DOUBLE NULL,
  transferred_to VARCHAR(64) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NULL,
  q850 TINYINT UNSIGNED NULL,
  sip SMALLINT UNSIGNED NULL,
  ended_by ENUM('caller', 'called', 'exchange') NULL,
  codec VARCHAR(20) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NULL,
  revision INT UNSIGNED NULL,
  recording CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NULL,
  missed TINYINT(1) NOT NULL,
  emergency TINYINT(1) NOT NULL,
  course TEXT CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NULL,
  pressed TEXT CHARACTER SET ascii COLLATE ascii_bin NULL,
  erased TINYINT(1) NOT NULL DEFAULT 0,
  PRIMARY KEY (started, id),
  KEY call_number (`number`, started),
  KEY call_other (other, started),
  KEY call_phone (phone, started),
  KEY call_taken (answered_by, started),
  KEY call_end (end_id, started),
  KEY call_trunk (trunk, started),
  KEY call_queue (queue, started),
  KEY call_missed (missed, started),
  KEY call_cause (q850, started)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci
PARTITION BY RANGE COLUMNS (started) (PARTITION later VALUES LESS THAN (MAXVALUE));

-- Months that call records are kept; NULL: for ever.
ALTER TABLE setting
  ADD COLUMN IF NOT EXISTS keep_calls_months SMALLINT UNSIGNED NULL DEFAULT 24;

-- What whoever asked for long work might do then: it is done with no more.
ALTER TABLE job
  ADD COLUMN IF NOT EXISTS grants TEXT CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NULL;

-- A call log on its way in, in pieces, sealed; goes when it is read, or after some days.
CREATE TABLE IF NOT EXISTS call_log (
  id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  `name` VARCHAR(200) NOT NULL,
  octets BIGINT NOT NULL,
  account CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  at DATETIME(3) NOT NULL
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

CREATE TABLE IF NOT EXISTS call_log_piece (
  log CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  piece INT NOT NULL,
  content LONGBLOB NOT NULL,
  PRIMARY KEY (log, piece),
  CONSTRAINT call_log_piece_log FOREIGN KEY (log) REFERENCES call_log (id) ON DELETE CASCADE
) ENGINE=InnoDB;
