-- Inbound routes for callers from some countries, or with some numbers.
ALTER TABLE inbound_route
  ADD COLUMN IF NOT EXISTS calling_countries JSON NOT NULL DEFAULT '[]',
  ADD COLUMN IF NOT EXISTS calling_numbers JSON NOT NULL DEFAULT '[]';
