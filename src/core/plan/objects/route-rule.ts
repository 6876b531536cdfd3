import { z } from 'zod';
import { HOURS_MODES } from '../facts/hours-modes';
import { kind } from '../facts/kind';
import { id, note, ref } from '../facts/fields';

/** One time rule of an inbound route; the route's own leads-to is the otherwise. */
export const routeRule = z.strictObject({
  id,
  route: ref('inboundRoute', { title: 'Inbound route', description: 'Whose rule it is.' }),
  position: z
    .number()
    .meta({ title: 'Position', description: 'Read from the smallest upwards; the first that fits decides.' }),
  hours: ref('hours', { title: 'Hours', description: 'Whose opening times are asked.' }),
  when: z.enum(HOURS_MODES).default('open').meta({
    title: 'When',
    description: 'The rule fits while the hours are open, closed, on a holiday or under a notice.',
  }),
  leadsTo: ref('destination', { title: 'Leads to', description: 'Where the caller goes then.' }),
  note,
});
export type RouteRule = z.output<typeof routeRule>;

export const routeRuleKind = kind(routeRule, {
  word: 'time rule',
  words: 'time rules',
  list: 'routeRules',
  area: 'incoming',
  look: 'rule',
  path: null,
  label: (rule) => `when ${rule.when}`,
  partOf: 'route',
});
