-- Hours on outbound rules; what trunks keep, convert, assert, mark and overflow to; lines, call waiting and withheld callers; recall.
ALTER TABLE rung ADD COLUMN IF NOT EXISTS hours CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL;
ALTER TABLE rung ADD CONSTRAINT rung_hours FOREIGN KEY IF NOT EXISTS (hours) REFERENCES `hours` (id);

ALTER TABLE trunk
  ADD COLUMN IF NOT EXISTS kept_for_emergency INT NOT NULL DEFAULT 0,
  ADD COLUMN IF NOT EXISTS transcoding TINYINT(1) NOT NULL DEFAULT 0,
  ADD COLUMN IF NOT EXISTS asserts VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT 'shown number',
  ADD COLUMN IF NOT EXISTS diversion_mark VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT 'diversion',
  ADD COLUMN IF NOT EXISTS recall_seconds INT NULL,
  ADD COLUMN IF NOT EXISTS overflow_to VARCHAR(16) CHARACTER SET ascii COLLATE ascii_bin NULL;

-- A prefix before a number that begins with + was never understood by a carrier.
UPDATE trunk SET writes = 'digits' WHERE writes = 'plus' AND carrier_prefix IS NOT NULL;

ALTER TABLE extension
  ADD COLUMN IF NOT EXISTS `lines` INT NOT NULL DEFAULT 2,
  ADD COLUMN IF NOT EXISTS call_waiting TINYINT(1) NOT NULL DEFAULT 1,
  ADD COLUMN IF NOT EXISTS rejects_withheld TINYINT(1) NOT NULL DEFAULT 0;

ALTER TABLE organisation
  ADD COLUMN IF NOT EXISTS rejects_withheld TINYINT(1) NOT NULL DEFAULT 0,
  ADD COLUMN IF NOT EXISTS withheld_lead_to CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  ADD COLUMN IF NOT EXISTS recall_seconds INT NOT NULL DEFAULT 30;
