-- What the managers of a queue were told lately, for their screens.
CREATE TABLE IF NOT EXISTS queue_told (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  queue CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  what VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  who VARCHAR(120) NULL,
  seconds DOUBLE NOT NULL,
  at DATETIME(3) NOT NULL,
  KEY queue_told_queue (queue, at),
  KEY queue_told_at (at)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;
-- People have public pages too: a wish to be called names an extension then.
ALTER TABLE extension
  ADD COLUMN IF NOT EXISTS call_page VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NULL;
