-- Codes that do something are service codes; the organisation says its language and how it writes dates.
CREATE TABLE IF NOT EXISTS `service_code` (
  id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  kind VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT 'serviceCode' CHECK (kind = 'serviceCode'),
  `service` VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  queue CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  time_switch CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  park_place CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  prompt CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  note TEXT NOT NULL,
  row_version INT NOT NULL DEFAULT 1,
  CONSTRAINT service_code_destination FOREIGN KEY (id, kind) REFERENCES destination (id, kind),
  CONSTRAINT service_code_queue FOREIGN KEY (queue) REFERENCES `queue` (id),
  CONSTRAINT service_code_time_switch FOREIGN KEY (time_switch) REFERENCES `time_switch` (id),
  CONSTRAINT service_code_park_place FOREIGN KEY (park_place) REFERENCES `park_place` (id),
  CONSTRAINT service_code_prompt FOREIGN KEY (prompt) REFERENCES `prompt` (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

-- The old table goes last: every step before it may run again.
ALTER TABLE `feature_code` DROP FOREIGN KEY IF EXISTS feature_code_destination;

UPDATE destination SET kind = 'serviceCode' WHERE kind = 'featureCode';

INSERT IGNORE INTO `service_code` (id, `service`, queue, time_switch, park_place, prompt, note, row_version)
  SELECT id, `feature`, queue, time_switch, park_place, prompt, note, row_version FROM `feature_code`;

UPDATE journal SET
  before_value = IF(before_value IS NULL, NULL, JSON_REMOVE(JSON_SET(before_value, '$.service', JSON_EXTRACT(before_value, '$.feature')), '$.feature')),
  after_value = IF(after_value IS NULL, NULL, JSON_REMOVE(JSON_SET(after_value, '$.service', JSON_EXTRACT(after_value, '$.feature')), '$.feature')),
  object_kind = 'serviceCode'
WHERE object_kind = 'featureCode';

DROP TABLE IF EXISTS `feature_code`;

ALTER TABLE organisation
  ADD COLUMN IF NOT EXISTS language VARCHAR(35) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT 'en',
  ADD COLUMN IF NOT EXISTS day_order VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT 'day first';

UPDATE organisation SET day_order = 'month first'
WHERE (SELECT country FROM site ORDER BY id LIMIT 1) = 'US';
