-- Work in lanes, begun again after a failure with a growing pause, given up after some: who holds it, when it is due, how often it was tried.
ALTER TABLE job
  ADD COLUMN IF NOT EXISTS lane VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT 'edits',
  ADD COLUMN IF NOT EXISTS run_at DATETIME(3) NULL,
  ADD COLUMN IF NOT EXISTS attempts INT NOT NULL DEFAULT 0,
  ADD COLUMN IF NOT EXISTS owner CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL;

UPDATE job SET run_at = made_at WHERE run_at IS NULL;

ALTER TABLE job MODIFY COLUMN run_at DATETIME(3) NOT NULL;

ALTER TABLE job ADD KEY IF NOT EXISTS job_due (lane, state, run_at);

ALTER TABLE journal ADD KEY IF NOT EXISTS journal_version (draft_version, undone);
