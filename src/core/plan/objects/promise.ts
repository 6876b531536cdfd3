import { z } from 'zod';
import { CALL_KINDS } from '../../numbers/kinds';
import { digitMap, id, name, note, ref, refs, week } from '../facts/fields';
import { kind } from '../facts/kind';
import { NAMES_ENDS, PROMISE_ENDS, PROMISE_FROM, PROMISE_MUST, PROMISE_WHEN } from '../facts/promises';

/** Something that must always hold, of all calls of a kind (ENGINE E14). */
export const promise = z
  .strictObject({
    id,
    name: name.meta({ title: 'Name', description: 'Example: 112 gets out from every phone.' }),
    firm: z.boolean().default(false).meta({
      title: 'Firm',
      description: 'Nothing goes live that breaks it, unless an owner says why.',
    }),
    from: z.enum(PROMISE_FROM).default('phones').meta({
      title: 'Calls from',
      description: 'Our phones, or callers from outside to our numbers.',
    }),
    fromSites: refs('site', 200, { title: 'Sites', description: 'Only phones, or trunks, of these. Empty: of all.' }),
    fromClasses: refs('class', 50, { title: 'Classes', description: 'Only phones of these classes. Empty: of all.' }),
    fromTeams: refs('team', 200, { title: 'Teams', description: 'Only phones of people in these. Empty: of all.' }),
    fromPhones: refs('extension', 500, { title: 'Phones', description: 'Only these phones. Empty: all of the above.' }),
    fromNumbers: refs('number', 500, { title: 'Numbers', description: 'Only calls to these. Empty: to all.' }),
    fromTrunks: refs('trunk', 100, { title: 'Trunks', description: 'Only calls that come by these. Empty: by all.' }),
    dialKinds: z.array(z.enum(CALL_KINDS)).max(CALL_KINDS.length).default([]).meta({
      title: 'Kinds of call',
      description: 'What phones dial, by kind. Example: emergency. Empty: of every kind.',
    }),
    dialMap: digitMap.nullable().default(null).meta({
      title: 'Digits',
      description: 'What phones dial, as a digit map. Example: 900x. Empty: whatever there is.',
    }),
    when: z.enum(PROMISE_WHEN).default('always').meta({
      title: 'When',
      description: 'Always, or while the hours say open or closed. Example: always.',
    }),
    hours: ref('hours', { title: 'Hours', description: 'Whose open or closed times count.' }).nullable().default(null),
    weekly: week.nullable().default(null).meta({
      title: 'Only these times',
      description: 'Times of the week by the clock of the main site. Example: mon-fri 8-17. Empty: all of them.',
    }),
    must: z.enum(PROMISE_MUST).default('never reaches').meta({
      title: 'Must',
      description: 'What must be so of every such call, whatever the caller does and whoever is busy or away.',
    }),
    ends: z.array(z.enum(PROMISE_ENDS)).max(PROMISE_ENDS.length).default(['the outside']).meta({
      title: 'Ends',
      description: 'Kinds of ends that are meant. Example: the outside.',
    }),
    places: refs('destination', 200, { title: 'Places', description: 'Single places that are meant.' }),
    seconds: z.number().int().min(0).max(3600).default(20).meta({
      title: 'Seconds',
      description: 'Within which somebody must be rung. Example: 20.',
    }),
    trunksDown: z.boolean().default(false).meta({
      title: 'Also with trunks down',
      description: 'It holds whichever trunks are down, too. Off: all trunks are up.',
    }),
    note,
  })
  .refine((p) => !NAMES_ENDS.has(p.must) || p.ends.length + p.places.length > 0, {
    path: ['ends'],
    message: 'and places are both empty; name at least one end or place that is meant',
  })
  .refine((p) => p.when === 'always' || p.hours !== null, {
    path: ['hours'],
    message: 'are empty; choose the hours that say when it is open or closed',
  });
export type Promised = z.output<typeof promise>;

export const promiseKind = kind(promise, {
  word: 'promise',
  words: 'promises',
  list: 'promises',
  area: 'sites',
  look: 'rule',
  path: '/promises/{id}',
});
