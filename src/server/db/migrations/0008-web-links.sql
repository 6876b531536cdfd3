-- Web links go: a call can't end at one. What led to one is written to the history, then leads nowhere; keys and time rules that did go with it.
INSERT INTO history (at, account, action, object_id, detail, address)
  SELECT UTC_TIMESTAMP(3), NULL, 'web-link-taken-out', d.id,
    JSON_OBJECT('name', d.name, 'led there', (SELECT GROUP_CONCAT(CONCAT(r.what, ' ', r.id) SEPARATOR ', ') FROM (
      SELECT id, `belongs_to` AS target, 'number.belongs_to' AS what FROM `number`
      UNION ALL SELECT id, `leads_to` AS target, 'inbound_route.leads_to' AS what FROM `inbound_route`
      UNION ALL SELECT id, `otherwise` AS target, 'trunk.otherwise' AS what FROM `trunk`
      UNION ALL SELECT id, `blocked_lead_to` AS target, 'site.blocked_lead_to' AS what FROM `site`
      UNION ALL SELECT id, `leads_to` AS target, 'announcement.leads_to' AS what FROM `announcement`
      UNION ALL SELECT id, `otherwise` AS target, 'directory.otherwise' AS what FROM `directory`
      UNION ALL SELECT id, `return_to` AS target, 'park_place.return_to' AS what FROM `park_place`
      UNION ALL SELECT id, `exit_to` AS target, 'queue.exit_to' AS what FROM `queue`
      UNION ALL SELECT id, `nobody_signed_in` AS target, 'queue.nobody_signed_in' AS what FROM `queue`
      UNION ALL SELECT id, `full` AS target, 'queue.full' AS what FROM `queue`
      UNION ALL SELECT id, `waited_too_long` AS target, 'queue.waited_too_long' AS what FROM `queue`
      UNION ALL SELECT id, `end` AS target, 'reach_plan.end' AS what FROM `reach_plan`
      UNION ALL SELECT id, `no_answer` AS target, 'ring_group.no_answer' AS what FROM `ring_group`
      UNION ALL SELECT id, `all_busy` AS target, 'ring_group.all_busy' AS what FROM `ring_group`
      UNION ALL SELECT id, `open` AS target, 'time_switch.open' AS what FROM `time_switch`
      UNION ALL SELECT id, `closed` AS target, 'time_switch.closed' AS what FROM `time_switch`
      UNION ALL SELECT id, `holiday` AS target, 'time_switch.holiday' AS what FROM `time_switch`
      UNION ALL SELECT id, `internal_to` AS target, 'presence_rule.internal_to' AS what FROM `presence_rule`
      UNION ALL SELECT id, `outside_to` AS target, 'presence_rule.outside_to' AS what FROM `presence_rule`
      UNION ALL SELECT id, `internal_to` AS target, 'presence_choice.internal_to' AS what FROM `presence_choice`
      UNION ALL SELECT id, `outside_to` AS target, 'presence_choice.outside_to' AS what FROM `presence_choice`
      UNION ALL SELECT id, `leads_to` AS target, 'attendant_key.leads_to' AS what FROM `attendant_key`
      UNION ALL SELECT id, `leads_to` AS target, 'route_rule.leads_to' AS what FROM `route_rule`
      UNION ALL SELECT 'organisation', blocked_lead_to, 'organisation.blocked_lead_to' FROM organisation
    ) r WHERE r.target = d.id)), ''
  FROM destination d WHERE d.kind = 'webLink';

UPDATE `number` SET `belongs_to` = NULL WHERE `belongs_to` IN (SELECT id FROM destination WHERE kind = 'webLink');

UPDATE `inbound_route` SET `leads_to` = NULL WHERE `leads_to` IN (SELECT id FROM destination WHERE kind = 'webLink');

UPDATE `trunk` SET `otherwise` = NULL WHERE `otherwise` IN (SELECT id FROM destination WHERE kind = 'webLink');

UPDATE `site` SET `blocked_lead_to` = NULL WHERE `blocked_lead_to` IN (SELECT id FROM destination WHERE kind = 'webLink');

UPDATE `announcement` SET `leads_to` = NULL WHERE `leads_to` IN (SELECT id FROM destination WHERE kind = 'webLink');

UPDATE `directory` SET `otherwise` = NULL WHERE `otherwise` IN (SELECT id FROM destination WHERE kind = 'webLink');

UPDATE `park_place` SET `return_to` = NULL WHERE `return_to` IN (SELECT id FROM destination WHERE kind = 'webLink');

UPDATE `queue` SET `exit_to` = NULL WHERE `exit_to` IN (SELECT id FROM destination WHERE kind = 'webLink');

UPDATE `queue` SET `nobody_signed_in` = NULL WHERE `nobody_signed_in` IN (SELECT id FROM destination WHERE kind = 'webLink');

UPDATE `queue` SET `full` = NULL WHERE `full` IN (SELECT id FROM destination WHERE kind = 'webLink');

UPDATE `queue` SET `waited_too_long` = NULL WHERE `waited_too_long` IN (SELECT id FROM destination WHERE kind = 'webLink');

UPDATE `reach_plan` SET `end` = NULL WHERE `end` IN (SELECT id FROM destination WHERE kind = 'webLink');

UPDATE `ring_group` SET `no_answer` = NULL WHERE `no_answer` IN (SELECT id FROM destination WHERE kind = 'webLink');

UPDATE `ring_group` SET `all_busy` = NULL WHERE `all_busy` IN (SELECT id FROM destination WHERE kind = 'webLink');

UPDATE `time_switch` SET `open` = NULL WHERE `open` IN (SELECT id FROM destination WHERE kind = 'webLink');

UPDATE `time_switch` SET `closed` = NULL WHERE `closed` IN (SELECT id FROM destination WHERE kind = 'webLink');

UPDATE `time_switch` SET `holiday` = NULL WHERE `holiday` IN (SELECT id FROM destination WHERE kind = 'webLink');

UPDATE `presence_rule` SET `internal_to` = NULL, internal = 'ring' WHERE `internal_to` IN (SELECT id FROM destination WHERE kind = 'webLink');

UPDATE `presence_rule` SET `outside_to` = NULL, outside = 'ring' WHERE `outside_to` IN (SELECT id FROM destination WHERE kind = 'webLink');

UPDATE `presence_choice` SET `internal_to` = NULL, internal = 'ring' WHERE `internal_to` IN (SELECT id FROM destination WHERE kind = 'webLink');

UPDATE `presence_choice` SET `outside_to` = NULL, outside = 'ring' WHERE `outside_to` IN (SELECT id FROM destination WHERE kind = 'webLink');

UPDATE organisation SET blocked_lead_to = NULL WHERE blocked_lead_to IN (SELECT id FROM destination WHERE kind = 'webLink');

DELETE FROM `attendant_key` WHERE leads_to IN (SELECT id FROM destination WHERE kind = 'webLink');

DELETE FROM `route_rule` WHERE leads_to IN (SELECT id FROM destination WHERE kind = 'webLink');

DROP TABLE IF EXISTS web_link;

DELETE FROM destination WHERE kind = 'webLink';
