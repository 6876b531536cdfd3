/** The kinds of object a call can be led to. A new kind adds a line here and a file beside this one. */
export const DESTINATION_KINDS = [
  'extension',
  'mailbox',
  'ringGroup',
  'queue',
  'attendant',
  'timeSwitch',
  'announcement',
  'directory',
  'outsideNumber',
  'conference',
  'pageGroup',
  'fax',
  'parkPlace',
  'tone',
  'webLink',
  'reachPlan',
] as const;
export type DestinationKind = (typeof DESTINATION_KINDS)[number];

/** What has digits of its own in a number space: destinations and feature codes. */
export const DIALABLE_KINDS = [...DESTINATION_KINDS, 'featureCode'] as const;
