-- Hours, people in teams, and everything else that a call can be led to; what earlier tables gain with it.

CREATE TABLE IF NOT EXISTS `holidays` (
  id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  `name` VARCHAR(80) NOT NULL,
  dates JSON NOT NULL,
  note TEXT NOT NULL,
  row_version INT NOT NULL DEFAULT 1
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

CREATE TABLE IF NOT EXISTS `hours` (
  id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  `name` VARCHAR(80) NOT NULL,
  `zone` VARCHAR(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  weekly VARCHAR(1000) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  exceptions JSON NOT NULL,
  note TEXT NOT NULL,
  row_version INT NOT NULL DEFAULT 1
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

CREATE TABLE IF NOT EXISTS `prompt` (
  id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  `name` VARCHAR(80) NOT NULL,
  `language` VARCHAR(35) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  `text` TEXT NOT NULL,
  seconds DOUBLE NOT NULL,
  note TEXT NOT NULL,
  row_version INT NOT NULL DEFAULT 1
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

CREATE TABLE IF NOT EXISTS `team` (
  id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  `name` VARCHAR(80) NOT NULL,
  note TEXT NOT NULL,
  row_version INT NOT NULL DEFAULT 1
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

CREATE TABLE IF NOT EXISTS `site_pair` (
  id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  site_a CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  site_b CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  codec VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  packet_ms DOUBLE NOT NULL,
  note TEXT NOT NULL,
  row_version INT NOT NULL DEFAULT 1,
  CONSTRAINT site_pair_site_a FOREIGN KEY (site_a) REFERENCES `site` (id),
  CONSTRAINT site_pair_site_b FOREIGN KEY (site_b) REFERENCES `site` (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

CREATE TABLE IF NOT EXISTS `reach_plan` (
  id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  kind VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT 'reachPlan' CHECK (kind = 'reachPlan'),
  note TEXT NOT NULL,
  shows_caller TINYINT(1) NOT NULL,
  end CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  row_version INT NOT NULL DEFAULT 1,
  CONSTRAINT reach_plan_destination FOREIGN KEY (id, kind) REFERENCES destination (id, kind),
  CONSTRAINT reach_plan_end FOREIGN KEY (end) REFERENCES `destination` (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

CREATE TABLE IF NOT EXISTS `ring_group` (
  id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  kind VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT 'ringGroup' CHECK (kind = 'ringGroup'),
  note TEXT NOT NULL,
  `order` VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  ring_seconds INT NOT NULL,
  no_answer CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  all_busy CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  row_version INT NOT NULL DEFAULT 1,
  CONSTRAINT ring_group_destination FOREIGN KEY (id, kind) REFERENCES destination (id, kind),
  CONSTRAINT ring_group_no_answer FOREIGN KEY (no_answer) REFERENCES `destination` (id),
  CONSTRAINT ring_group_all_busy FOREIGN KEY (all_busy) REFERENCES `destination` (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

CREATE TABLE IF NOT EXISTS `page_group` (
  id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  kind VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT 'pageGroup' CHECK (kind = 'pageGroup'),
  note TEXT NOT NULL,
  row_version INT NOT NULL DEFAULT 1,
  CONSTRAINT page_group_destination FOREIGN KEY (id, kind) REFERENCES destination (id, kind)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

CREATE TABLE IF NOT EXISTS `queue` (
  id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  kind VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT 'queue' CHECK (kind = 'queue'),
  note TEXT NOT NULL,
  strategy VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  ring_seconds INT NOT NULL,
  wrap_up_seconds INT NOT NULL,
  longest_wait_seconds INT NULL,
  most_waiting INT NULL,
  intro CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  intro_first TINYINT(1) NOT NULL,
  announce_every_seconds INT NULL,
  callback_key CHAR(1) CHARACTER SET ascii COLLATE ascii_bin NULL,
  callback_after_seconds INT NOT NULL,
  exit_key CHAR(1) CHARACTER SET ascii COLLATE ascii_bin NULL,
  exit_to CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  nobody_signed_in CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  full CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  waited_too_long CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  recorded TINYINT(1) NOT NULL,
  consent CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  row_version INT NOT NULL DEFAULT 1,
  CONSTRAINT queue_destination FOREIGN KEY (id, kind) REFERENCES destination (id, kind),
  CONSTRAINT queue_intro FOREIGN KEY (intro) REFERENCES `prompt` (id),
  CONSTRAINT queue_exit_to FOREIGN KEY (exit_to) REFERENCES `destination` (id),
  CONSTRAINT queue_nobody_signed_in FOREIGN KEY (nobody_signed_in) REFERENCES `destination` (id),
  CONSTRAINT queue_full FOREIGN KEY (full) REFERENCES `destination` (id),
  CONSTRAINT queue_waited_too_long FOREIGN KEY (waited_too_long) REFERENCES `destination` (id),
  CONSTRAINT queue_consent FOREIGN KEY (consent) REFERENCES `prompt` (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

CREATE TABLE IF NOT EXISTS `attendant` (
  id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  kind VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT 'attendant' CHECK (kind = 'attendant'),
  note TEXT NOT NULL,
  hours CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  greeting_open CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  greeting_closed CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  greeting_holiday CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  greeting_notice CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  digit_seconds INT NOT NULL,
  choose_seconds INT NOT NULL,
  tries INT NOT NULL,
  direct_dialling VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  dial_by_name TINYINT(1) NOT NULL,
  row_version INT NOT NULL DEFAULT 1,
  CONSTRAINT attendant_destination FOREIGN KEY (id, kind) REFERENCES destination (id, kind),
  CONSTRAINT attendant_hours FOREIGN KEY (hours) REFERENCES `hours` (id),
  CONSTRAINT attendant_greeting_open FOREIGN KEY (greeting_open) REFERENCES `prompt` (id),
  CONSTRAINT attendant_greeting_closed FOREIGN KEY (greeting_closed) REFERENCES `prompt` (id),
  CONSTRAINT attendant_greeting_holiday FOREIGN KEY (greeting_holiday) REFERENCES `prompt` (id),
  CONSTRAINT attendant_greeting_notice FOREIGN KEY (greeting_notice) REFERENCES `prompt` (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

CREATE TABLE IF NOT EXISTS `time_switch` (
  id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  kind VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT 'timeSwitch' CHECK (kind = 'timeSwitch'),
  note TEXT NOT NULL,
  hours CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  `open` CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  closed CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  holiday CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  row_version INT NOT NULL DEFAULT 1,
  CONSTRAINT time_switch_destination FOREIGN KEY (id, kind) REFERENCES destination (id, kind),
  CONSTRAINT time_switch_hours FOREIGN KEY (hours) REFERENCES `hours` (id),
  CONSTRAINT time_switch_open FOREIGN KEY (`open`) REFERENCES `destination` (id),
  CONSTRAINT time_switch_closed FOREIGN KEY (closed) REFERENCES `destination` (id),
  CONSTRAINT time_switch_holiday FOREIGN KEY (holiday) REFERENCES `destination` (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

CREATE TABLE IF NOT EXISTS `announcement` (
  id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  kind VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT 'announcement' CHECK (kind = 'announcement'),
  note TEXT NOT NULL,
  prompt CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  leads_to CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  row_version INT NOT NULL DEFAULT 1,
  CONSTRAINT announcement_destination FOREIGN KEY (id, kind) REFERENCES destination (id, kind),
  CONSTRAINT announcement_prompt FOREIGN KEY (prompt) REFERENCES `prompt` (id),
  CONSTRAINT announcement_leads_to FOREIGN KEY (leads_to) REFERENCES `destination` (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

CREATE TABLE IF NOT EXISTS `directory` (
  id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  kind VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT 'directory' CHECK (kind = 'directory'),
  note TEXT NOT NULL,
  scope VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  prompt CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  digit_seconds INT NOT NULL,
  choose_seconds INT NOT NULL,
  tries INT NOT NULL,
  otherwise CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  row_version INT NOT NULL DEFAULT 1,
  CONSTRAINT directory_destination FOREIGN KEY (id, kind) REFERENCES destination (id, kind),
  CONSTRAINT directory_prompt FOREIGN KEY (prompt) REFERENCES `prompt` (id),
  CONSTRAINT directory_otherwise FOREIGN KEY (otherwise) REFERENCES `destination` (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

CREATE TABLE IF NOT EXISTS `outside_number` (
  id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  kind VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT 'outsideNumber' CHECK (kind = 'outsideNumber'),
  note TEXT NOT NULL,
  dial VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  class CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  row_version INT NOT NULL DEFAULT 1,
  CONSTRAINT outside_number_destination FOREIGN KEY (id, kind) REFERENCES destination (id, kind),
  CONSTRAINT outside_number_class FOREIGN KEY (class) REFERENCES `class` (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

CREATE TABLE IF NOT EXISTS `conference` (
  id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  kind VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT 'conference' CHECK (kind = 'conference'),
  note TEXT NOT NULL,
  most_members INT NOT NULL,
  row_version INT NOT NULL DEFAULT 1,
  CONSTRAINT conference_destination FOREIGN KEY (id, kind) REFERENCES destination (id, kind)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

CREATE TABLE IF NOT EXISTS `fax` (
  id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  kind VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT 'fax' CHECK (kind = 'fax'),
  note TEXT NOT NULL,
  email VARCHAR(254) NULL,
  row_version INT NOT NULL DEFAULT 1,
  CONSTRAINT fax_destination FOREIGN KEY (id, kind) REFERENCES destination (id, kind)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

CREATE TABLE IF NOT EXISTS `park_place` (
  id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  kind VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT 'parkPlace' CHECK (kind = 'parkPlace'),
  note TEXT NOT NULL,
  return_seconds INT NOT NULL,
  return_to CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  row_version INT NOT NULL DEFAULT 1,
  CONSTRAINT park_place_destination FOREIGN KEY (id, kind) REFERENCES destination (id, kind),
  CONSTRAINT park_place_return_to FOREIGN KEY (return_to) REFERENCES `destination` (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

CREATE TABLE IF NOT EXISTS `tone` (
  id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  kind VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT 'tone' CHECK (kind = 'tone'),
  note TEXT NOT NULL,
  `tone` VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  row_version INT NOT NULL DEFAULT 1,
  CONSTRAINT tone_destination FOREIGN KEY (id, kind) REFERENCES destination (id, kind)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

CREATE TABLE IF NOT EXISTS `web_link` (
  id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  kind VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT 'webLink' CHECK (kind = 'webLink'),
  note TEXT NOT NULL,
  `address` VARCHAR(500) NOT NULL,
  row_version INT NOT NULL DEFAULT 1,
  CONSTRAINT web_link_destination FOREIGN KEY (id, kind) REFERENCES destination (id, kind)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

CREATE TABLE IF NOT EXISTS `attendant_key` (
  id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  attendant CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  mode VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  `key` VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  leads_to CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  silent TINYINT(1) NOT NULL,
  note TEXT NOT NULL,
  row_version INT NOT NULL DEFAULT 1,
  CONSTRAINT attendant_key_attendant FOREIGN KEY (attendant) REFERENCES `attendant` (id),
  CONSTRAINT attendant_key_leads_to FOREIGN KEY (leads_to) REFERENCES `destination` (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

CREATE TABLE IF NOT EXISTS `reach_step` (
  id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  reach_plan CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  `position` DOUBLE NOT NULL,
  with_previous TINYINT(1) NOT NULL,
  extension CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  outside CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  seconds INT NOT NULL,
  key_to_take TINYINT(1) NOT NULL,
  note TEXT NOT NULL,
  row_version INT NOT NULL DEFAULT 1,
  CONSTRAINT reach_step_reach_plan FOREIGN KEY (reach_plan) REFERENCES `reach_plan` (id),
  CONSTRAINT reach_step_extension FOREIGN KEY (extension) REFERENCES `extension` (id),
  CONSTRAINT reach_step_outside FOREIGN KEY (outside) REFERENCES `outside_number` (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

CREATE TABLE IF NOT EXISTS `feature_code` (
  id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  kind VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT 'featureCode' CHECK (kind = 'featureCode'),
  `feature` VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  queue CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  time_switch CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  park_place CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  prompt CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  note TEXT NOT NULL,
  row_version INT NOT NULL DEFAULT 1,
  CONSTRAINT feature_code_destination FOREIGN KEY (id, kind) REFERENCES destination (id, kind),
  CONSTRAINT feature_code_queue FOREIGN KEY (queue) REFERENCES `queue` (id),
  CONSTRAINT feature_code_time_switch FOREIGN KEY (time_switch) REFERENCES `time_switch` (id),
  CONSTRAINT feature_code_park_place FOREIGN KEY (park_place) REFERENCES `park_place` (id),
  CONSTRAINT feature_code_prompt FOREIGN KEY (prompt) REFERENCES `prompt` (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

CREATE TABLE IF NOT EXISTS `presence_rule` (
  id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  `name` VARCHAR(80) NOT NULL,
  activity VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  internal VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  internal_to CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  outside VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  outside_to CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL,
  note TEXT NOT NULL,
  row_version INT NOT NULL DEFAULT 1,
  CONSTRAINT presence_rule_internal_to FOREIGN KEY (internal_to) REFERENCES `destination` (id),
  CONSTRAINT presence_rule_outside_to FOREIGN KEY (outside_to) REFERENCES `destination` (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

CREATE TABLE IF NOT EXISTS `route_rule` (
  id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  route CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  `position` DOUBLE NOT NULL,
  hours CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  `when` VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  leads_to CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  note TEXT NOT NULL,
  row_version INT NOT NULL DEFAULT 1,
  CONSTRAINT route_rule_route FOREIGN KEY (route) REFERENCES `inbound_route` (id),
  CONSTRAINT route_rule_hours FOREIGN KEY (hours) REFERENCES `hours` (id),
  CONSTRAINT route_rule_leads_to FOREIGN KEY (leads_to) REFERENCES `destination` (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

CREATE TABLE IF NOT EXISTS `short_number` (
  id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  country CHAR(2) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  `map` VARCHAR(4096) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  `kind` VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  `name` VARCHAR(80) NOT NULL,
  tariff VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  in_use TINYINT(1) NOT NULL,
  note TEXT NOT NULL,
  row_version INT NOT NULL DEFAULT 1
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

CREATE TABLE IF NOT EXISTS hours_holidays (
  owner CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  position INT NOT NULL,
  target CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  PRIMARY KEY (owner, position),
  UNIQUE KEY hours_holidays_once (owner, target),
  CONSTRAINT hours_holidays_owner FOREIGN KEY (owner) REFERENCES `hours` (id) ON DELETE CASCADE,
  CONSTRAINT hours_holidays_target FOREIGN KEY (target) REFERENCES `holidays` (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

CREATE TABLE IF NOT EXISTS ring_group_members (
  owner CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  position INT NOT NULL,
  target CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  PRIMARY KEY (owner, position),
  UNIQUE KEY ring_group_members_once (owner, target),
  CONSTRAINT ring_group_members_owner FOREIGN KEY (owner) REFERENCES `ring_group` (id) ON DELETE CASCADE,
  CONSTRAINT ring_group_members_target FOREIGN KEY (target) REFERENCES `extension` (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

CREATE TABLE IF NOT EXISTS page_group_members (
  owner CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  position INT NOT NULL,
  target CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  PRIMARY KEY (owner, position),
  UNIQUE KEY page_group_members_once (owner, target),
  CONSTRAINT page_group_members_owner FOREIGN KEY (owner) REFERENCES `page_group` (id) ON DELETE CASCADE,
  CONSTRAINT page_group_members_target FOREIGN KEY (target) REFERENCES `extension` (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

CREATE TABLE IF NOT EXISTS queue_agents (
  owner CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  position INT NOT NULL,
  target CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  PRIMARY KEY (owner, position),
  UNIQUE KEY queue_agents_once (owner, target),
  CONSTRAINT queue_agents_owner FOREIGN KEY (owner) REFERENCES `queue` (id) ON DELETE CASCADE,
  CONSTRAINT queue_agents_target FOREIGN KEY (target) REFERENCES `extension` (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

CREATE TABLE IF NOT EXISTS queue_permanent_agents (
  owner CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  position INT NOT NULL,
  target CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  PRIMARY KEY (owner, position),
  UNIQUE KEY queue_permanent_agents_once (owner, target),
  CONSTRAINT queue_permanent_agents_owner FOREIGN KEY (owner) REFERENCES `queue` (id) ON DELETE CASCADE,
  CONSTRAINT queue_permanent_agents_target FOREIGN KEY (target) REFERENCES `extension` (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

ALTER TABLE `class` ADD COLUMN IF NOT EXISTS watch VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT 'everyone';

CREATE TABLE IF NOT EXISTS class_watch_people (
  owner CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  position INT NOT NULL,
  target CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  PRIMARY KEY (owner, position),
  UNIQUE KEY class_watch_people_once (owner, target),
  CONSTRAINT class_watch_people_owner FOREIGN KEY (owner) REFERENCES `class` (id) ON DELETE CASCADE,
  CONSTRAINT class_watch_people_target FOREIGN KEY (target) REFERENCES `person` (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

CREATE TABLE IF NOT EXISTS class_watch_teams (
  owner CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  position INT NOT NULL,
  target CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  PRIMARY KEY (owner, position),
  UNIQUE KEY class_watch_teams_once (owner, target),
  CONSTRAINT class_watch_teams_owner FOREIGN KEY (owner) REFERENCES `class` (id) ON DELETE CASCADE,
  CONSTRAINT class_watch_teams_target FOREIGN KEY (target) REFERENCES `team` (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

CREATE TABLE IF NOT EXISTS person_teams (
  owner CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  position INT NOT NULL,
  target CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  PRIMARY KEY (owner, position),
  UNIQUE KEY person_teams_once (owner, target),
  CONSTRAINT person_teams_owner FOREIGN KEY (owner) REFERENCES `person` (id) ON DELETE CASCADE,
  CONSTRAINT person_teams_target FOREIGN KEY (target) REFERENCES `team` (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

ALTER TABLE `person` ADD COLUMN IF NOT EXISTS spelling VARCHAR(80) NOT NULL DEFAULT '';

ALTER TABLE `extension` ADD COLUMN IF NOT EXISTS reach_plan CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL;

ALTER TABLE `extension` ADD CONSTRAINT extension_reach_plan FOREIGN KEY IF NOT EXISTS (reach_plan) REFERENCES `reach_plan` (id);

CREATE TABLE IF NOT EXISTS rung_for_teams (
  owner CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  position INT NOT NULL,
  target CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  PRIMARY KEY (owner, position),
  UNIQUE KEY rung_for_teams_once (owner, target),
  CONSTRAINT rung_for_teams_owner FOREIGN KEY (owner) REFERENCES `rung` (id) ON DELETE CASCADE,
  CONSTRAINT rung_for_teams_target FOREIGN KEY (target) REFERENCES `team` (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

CREATE TABLE IF NOT EXISTS rung_not_for_teams (
  owner CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  position INT NOT NULL,
  target CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  PRIMARY KEY (owner, position),
  UNIQUE KEY rung_not_for_teams_once (owner, target),
  CONSTRAINT rung_not_for_teams_owner FOREIGN KEY (owner) REFERENCES `rung` (id) ON DELETE CASCADE,
  CONSTRAINT rung_not_for_teams_target FOREIGN KEY (target) REFERENCES `team` (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_uca1400_as_ci;

ALTER TABLE `site` ADD COLUMN IF NOT EXISTS link_kbit_per_second DOUBLE NULL;

ALTER TABLE `site` ADD COLUMN IF NOT EXISTS link_layer VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT 'ethernet';

ALTER TABLE `site` ADD COLUMN IF NOT EXISTS link_ip VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT '4';

ALTER TABLE `trunk` ADD COLUMN IF NOT EXISTS channel_choice VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT 'lowest free';

ALTER TABLE `trunk` ADD COLUMN IF NOT EXISTS recorded TINYINT(1) NOT NULL DEFAULT 0;

ALTER TABLE `trunk` ADD COLUMN IF NOT EXISTS consent CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NULL;

ALTER TABLE `trunk` ADD CONSTRAINT trunk_consent FOREIGN KEY IF NOT EXISTS (consent) REFERENCES `prompt` (id);

