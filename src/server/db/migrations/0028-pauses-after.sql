-- After how many offers that an agent lets go in a row a queue pauses them; NULL: never.
ALTER TABLE queue ADD COLUMN IF NOT EXISTS pauses_after INT NULL DEFAULT 3;
