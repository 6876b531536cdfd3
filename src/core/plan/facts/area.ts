/** The areas that rights can be limited to, in the order of the rail; every kind of object belongs to one. */
export const AREAS = ['people', 'numbers', 'incoming', 'outgoing', 'sites'] as const;
export type Area = (typeof AREAS)[number];

export const AREA_WORDS: Record<Area, string> = {
  people: 'People: people, extensions, mailboxes, teams, reach plans',
  numbers: 'Numbers',
  incoming: 'Incoming: routes, hours, attendants, groups, queues, other places',
  outgoing: 'Outgoing: ladders, trunks, classes',
  sites: 'Sites and the organisation',
};
