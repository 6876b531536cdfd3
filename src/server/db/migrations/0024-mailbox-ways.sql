-- Where callers of a mailbox go when it is full, and by a key of theirs.
ALTER TABLE mailbox
  ADD COLUMN IF NOT EXISTS full CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  ADD COLUMN IF NOT EXISTS exit_key CHAR(1) CHARACTER SET ascii COLLATE ascii_bin NULL,
  ADD COLUMN IF NOT EXISTS exit_to CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL;
ALTER TABLE mailbox
  ADD CONSTRAINT FOREIGN KEY IF NOT EXISTS mailbox_full (full) REFERENCES destination (id),
  ADD CONSTRAINT FOREIGN KEY IF NOT EXISTS mailbox_exit_to (exit_to) REFERENCES destination (id);
