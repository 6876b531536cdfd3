-- The tables that are the draft: one for each kind of object; lists of references in tables of their own.

CREATE TABLE IF NOT EXISTS class (
  id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  name VARCHAR(80) NOT NULL,
  rights JSON NOT NULL,
  note TEXT NOT NULL,
  row_version INT NOT NULL DEFAULT 1
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

CREATE TABLE IF NOT EXISTS ladder (
  id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  name VARCHAR(80) NOT NULL,
  note TEXT NOT NULL,
  row_version INT NOT NULL DEFAULT 1
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

CREATE TABLE IF NOT EXISTS site (
  id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  name VARCHAR(80) NOT NULL,
  country CHAR(2) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  zone VARCHAR(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  language VARCHAR(35) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  address VARCHAR(200) NOT NULL,
  area VARCHAR(6) CHARACTER SET ascii COLLATE ascii_bin NULL,
  outside_prefix VARCHAR(3) CHARACTER SET ascii COLLATE ascii_bin NULL,
  site_code VARCHAR(6) CHARACTER SET ascii COLLATE ascii_bin NULL,
  ranges JSON NOT NULL,
  main_number CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  emergency_callback CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  ladder CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  blocked_callers VARCHAR(4096) CHARACTER SET ascii COLLATE ascii_bin NULL,
  blocked_lead_to CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  note TEXT NOT NULL,
  row_version INT NOT NULL DEFAULT 1,
  CONSTRAINT site_ladder FOREIGN KEY (ladder) REFERENCES ladder (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

CREATE TABLE IF NOT EXISTS destination (
  id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  kind VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  site CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  space CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  digits VARCHAR(10) CHARACTER SET ascii COLLATE ascii_bin NULL,
  name VARCHAR(80) NOT NULL,
  row_version INT NOT NULL DEFAULT 1,
  UNIQUE KEY destination_kind (id, kind),
  UNIQUE KEY destination_digits (space, digits),
  CONSTRAINT destination_site FOREIGN KEY (site) REFERENCES site (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

CREATE TABLE IF NOT EXISTS trunk (
  id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  name VARCHAR(80) NOT NULL,
  kind VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  site CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  enabled TINYINT(1) NOT NULL,
  host VARCHAR(253) NOT NULL,
  account VARCHAR(80) NOT NULL,
  password JSON NULL,
  channels INT NOT NULL,
  kept_for_incoming INT NOT NULL,
  codecs JSON NOT NULL,
  delivered_length INT NULL,
  delivered_form VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  delivered_head VARCHAR(16) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  writes VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  carrier_prefix VARCHAR(8) CHARACTER SET ascii COLLATE ascii_bin NULL,
  isdn_number_type VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  own_number CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  shows_original_caller TINYINT(1) NOT NULL,
  transit TINYINT(1) NOT NULL,
  answer_seconds INT NOT NULL,
  otherwise CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  note TEXT NOT NULL,
  row_version INT NOT NULL DEFAULT 1,
  CONSTRAINT trunk_site FOREIGN KEY (site) REFERENCES site (id),
  CONSTRAINT trunk_otherwise FOREIGN KEY (otherwise) REFERENCES destination (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

CREATE TABLE IF NOT EXISTS person (
  id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  name VARCHAR(80) NOT NULL,
  email VARCHAR(254) NULL,
  site CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  note TEXT NOT NULL,
  row_version INT NOT NULL DEFAULT 1,
  CONSTRAINT person_site FOREIGN KEY (site) REFERENCES site (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

CREATE TABLE IF NOT EXISTS mailbox (
  id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  kind VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT 'mailbox' CHECK (kind = 'mailbox'),
  owner CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  email VARCHAR(254) NULL,
  note TEXT NOT NULL,
  row_version INT NOT NULL DEFAULT 1,
  CONSTRAINT mailbox_destination FOREIGN KEY (id, kind) REFERENCES destination (id, kind),
  CONSTRAINT mailbox_owner FOREIGN KEY (owner) REFERENCES person (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

CREATE TABLE IF NOT EXISTS number (
  id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  e164 VARCHAR(16) CHARACTER SET ascii COLLATE ascii_bin NOT NULL UNIQUE,
  state VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  site CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  trunk CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  belongs_to CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  note TEXT NOT NULL,
  row_version INT NOT NULL DEFAULT 1,
  CONSTRAINT number_site FOREIGN KEY (site) REFERENCES site (id),
  CONSTRAINT number_trunk FOREIGN KEY (trunk) REFERENCES trunk (id),
  CONSTRAINT number_belongs_to FOREIGN KEY (belongs_to) REFERENCES destination (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

CREATE TABLE IF NOT EXISTS extension (
  id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  kind VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT 'extension' CHECK (kind = 'extension'),
  extension_kind VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  person CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  class CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  outgoing_number CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  withhold_number TINYINT(1) NOT NULL,
  sip_password JSON NULL,
  ring_seconds INT NOT NULL,
  mailbox CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  place VARCHAR(120) NOT NULL,
  emergency_callback CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  note TEXT NOT NULL,
  row_version INT NOT NULL DEFAULT 1,
  CONSTRAINT extension_destination FOREIGN KEY (id, kind) REFERENCES destination (id, kind),
  CONSTRAINT extension_person FOREIGN KEY (person) REFERENCES person (id),
  CONSTRAINT extension_class FOREIGN KEY (class) REFERENCES class (id),
  CONSTRAINT extension_outgoing_number FOREIGN KEY (outgoing_number) REFERENCES number (id),
  CONSTRAINT extension_mailbox FOREIGN KEY (mailbox) REFERENCES mailbox (id),
  CONSTRAINT extension_emergency_callback FOREIGN KEY (emergency_callback) REFERENCES number (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

CREATE TABLE IF NOT EXISTS rung (
  id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  ladder CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  position DOUBLE NOT NULL,
  name VARCHAR(80) NOT NULL,
  map VARCHAR(4096) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  strip INT NOT NULL,
  prepend VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NULL,
  reading VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  as_dialled TINYINT(1) NOT NULL,
  `show` VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  fixed_number CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  note TEXT NOT NULL,
  row_version INT NOT NULL DEFAULT 1,
  CONSTRAINT rung_ladder FOREIGN KEY (ladder) REFERENCES ladder (id),
  CONSTRAINT rung_fixed_number FOREIGN KEY (fixed_number) REFERENCES number (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

CREATE TABLE IF NOT EXISTS inbound_route (
  id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  position DOUBLE NOT NULL,
  name VARCHAR(80) NOT NULL,
  called_map VARCHAR(4096) CHARACTER SET ascii COLLATE ascii_bin NULL,
  calling_map VARCHAR(4096) CHARACTER SET ascii COLLATE ascii_bin NULL,
  calling_withheld TINYINT(1) NOT NULL,
  trunk CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  leads_to CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  dialled_extension TINYINT(1) NOT NULL,
  note TEXT NOT NULL,
  row_version INT NOT NULL DEFAULT 1,
  CONSTRAINT inbound_route_trunk FOREIGN KEY (trunk) REFERENCES trunk (id),
  CONSTRAINT inbound_route_leads_to FOREIGN KEY (leads_to) REFERENCES destination (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

CREATE TABLE IF NOT EXISTS number_addition (
  id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  `from` VARCHAR(16) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  `to` VARCHAR(16) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  country CHAR(2) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  kind VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  note TEXT NOT NULL,
  row_version INT NOT NULL DEFAULT 1
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

CREATE TABLE IF NOT EXISTS organisation (
  id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  name VARCHAR(80) NOT NULL,
  number_space VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  inter_digit_seconds INT NOT NULL,
  first_digit_seconds INT NOT NULL,
  blocked_callers VARCHAR(4096) CHARACTER SET ascii COLLATE ascii_bin NULL,
  blocked_lead_to CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  note TEXT NOT NULL,
  row_version INT NOT NULL DEFAULT 1,
  CONSTRAINT organisation_blocked_lead_to FOREIGN KEY (blocked_lead_to) REFERENCES destination (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

CREATE TABLE IF NOT EXISTS site_emergency_trunks (
  owner CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  position INT NOT NULL,
  target CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  PRIMARY KEY (owner, position),
  UNIQUE KEY site_emergency_trunks_once (owner, target),
  CONSTRAINT site_emergency_trunks_owner FOREIGN KEY (owner) REFERENCES site (id) ON DELETE CASCADE,
  CONSTRAINT site_emergency_trunks_target FOREIGN KEY (target) REFERENCES trunk (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

CREATE TABLE IF NOT EXISTS site_emergency_notify (
  owner CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  position INT NOT NULL,
  target CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  PRIMARY KEY (owner, position),
  UNIQUE KEY site_emergency_notify_once (owner, target),
  CONSTRAINT site_emergency_notify_owner FOREIGN KEY (owner) REFERENCES site (id) ON DELETE CASCADE,
  CONSTRAINT site_emergency_notify_target FOREIGN KEY (target) REFERENCES person (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

CREATE TABLE IF NOT EXISTS rung_trunks (
  owner CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  position INT NOT NULL,
  target CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  PRIMARY KEY (owner, position),
  UNIQUE KEY rung_trunks_once (owner, target),
  CONSTRAINT rung_trunks_owner FOREIGN KEY (owner) REFERENCES rung (id) ON DELETE CASCADE,
  CONSTRAINT rung_trunks_target FOREIGN KEY (target) REFERENCES trunk (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

CREATE TABLE IF NOT EXISTS rung_for_people (
  owner CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  position INT NOT NULL,
  target CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  PRIMARY KEY (owner, position),
  UNIQUE KEY rung_for_people_once (owner, target),
  CONSTRAINT rung_for_people_owner FOREIGN KEY (owner) REFERENCES rung (id) ON DELETE CASCADE,
  CONSTRAINT rung_for_people_target FOREIGN KEY (target) REFERENCES person (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

CREATE TABLE IF NOT EXISTS rung_for_sites (
  owner CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  position INT NOT NULL,
  target CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  PRIMARY KEY (owner, position),
  UNIQUE KEY rung_for_sites_once (owner, target),
  CONSTRAINT rung_for_sites_owner FOREIGN KEY (owner) REFERENCES rung (id) ON DELETE CASCADE,
  CONSTRAINT rung_for_sites_target FOREIGN KEY (target) REFERENCES site (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

CREATE TABLE IF NOT EXISTS rung_not_for_people (
  owner CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  position INT NOT NULL,
  target CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  PRIMARY KEY (owner, position),
  UNIQUE KEY rung_not_for_people_once (owner, target),
  CONSTRAINT rung_not_for_people_owner FOREIGN KEY (owner) REFERENCES rung (id) ON DELETE CASCADE,
  CONSTRAINT rung_not_for_people_target FOREIGN KEY (target) REFERENCES person (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

CREATE TABLE IF NOT EXISTS rung_not_for_sites (
  owner CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  position INT NOT NULL,
  target CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  PRIMARY KEY (owner, position),
  UNIQUE KEY rung_not_for_sites_once (owner, target),
  CONSTRAINT rung_not_for_sites_owner FOREIGN KEY (owner) REFERENCES rung (id) ON DELETE CASCADE,
  CONSTRAINT rung_not_for_sites_target FOREIGN KEY (target) REFERENCES site (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

CREATE TABLE IF NOT EXISTS inbound_route_numbers (
  owner CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  position INT NOT NULL,
  target CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  PRIMARY KEY (owner, position),
  UNIQUE KEY inbound_route_numbers_once (owner, target),
  CONSTRAINT inbound_route_numbers_owner FOREIGN KEY (owner) REFERENCES inbound_route (id) ON DELETE CASCADE,
  CONSTRAINT inbound_route_numbers_target FOREIGN KEY (target) REFERENCES number (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

ALTER TABLE site ADD CONSTRAINT site_main_number FOREIGN KEY IF NOT EXISTS (main_number) REFERENCES number (id);

ALTER TABLE site ADD CONSTRAINT site_emergency_callback FOREIGN KEY IF NOT EXISTS (emergency_callback) REFERENCES number (id);

ALTER TABLE site ADD CONSTRAINT site_blocked_lead_to FOREIGN KEY IF NOT EXISTS (blocked_lead_to) REFERENCES destination (id);

ALTER TABLE trunk ADD CONSTRAINT trunk_own_number FOREIGN KEY IF NOT EXISTS (own_number) REFERENCES number (id);
