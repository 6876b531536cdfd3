import { z } from 'zod';
import { kind } from '../facts/kind';
import { WRITTEN_FORMS } from '../../numbers';
import { CODECS } from '../facts/codecs';
import { digits, id, line, name, note, ref } from '../facts/fields';
import { DELIVERED_FORMS, TRUNK_KINDS } from '../facts/trunk-choices';
import { secretVersion } from './extension';

export const NUMBER_TYPES_ISDN = ['unknown', 'international', 'national', 'subscriber'] as const;

/** How a channel is chosen on trunks that have them (ENGINE E7). */
export const CHANNEL_CHOICES = ['lowest free', 'highest free', 'rotating up', 'rotating down'] as const;

/** The identity a trunk vouches for (RFC 3325). */
export const ASSERTED = ['nothing', 'shown number', 'main number'] as const;
/** How a trunk marks diversion: RFC 5806 or RFC 7044. */
export const DIVERSION_MARKS = ['nothing', 'diversion', 'history'] as const;

export const trunk = z
  .strictObject({
    id,
    name: name.meta({ title: 'Name', description: 'Example: Kestrel Voice.' }),
    kind: z.enum(TRUNK_KINDS).meta({
      title: 'Kind',
      description:
        'SIP with registration (we sign in at the carrier), SIP peer (known by address), or ISDN primary rate.',
    }),
    site: ref('site', {
      title: 'Site',
      description: 'Where it ends. Emergency calls never leave by another country’s trunk.',
    }),
    enabled: z
      .boolean()
      .default(true)
      .meta({ title: 'Enabled', description: 'A disabled trunk carries no call, in or out.' }),
    host: line(253).default('').meta({
      title: 'Host',
      description: 'Name or address of the far end, with :port when it isn’t 5060. Example: sip.kestrel.example.',
    }),
    account: line(80).default('').meta({ title: 'Account', description: 'User name from the carrier’s letter.' }),
    password: secretVersion
      .nullable()
      .default(null)
      .meta({ title: 'Password', description: 'From the carrier’s letter; kept encrypted.' }),
    channels: z.number().int().min(1).max(10_000).meta({
      title: 'Channels',
      description: 'Calls it carries at once. Example: 20. The next caller is sent to the next trunk, or refused.',
    }),
    keptForIncoming: z.number().int().min(0).max(10_000).default(0).meta({
      title: 'Kept for incoming',
      description: 'Channels that outgoing calls leave free. Example: 4. Emergency calls may take them.',
    }),
    keptForEmergency: z.number().int().min(0).max(10_000).default(0).meta({
      title: 'Kept for emergency calls',
      description:
        'Channels that every other call sees as taken. Example: 1. Then an emergency call never finds all busy.',
    }),
    channelChoice: z.enum(CHANNEL_CHOICES).default('lowest free').meta({
      title: 'Channel choice',
      description: 'Which free channel of a channelised trunk a call takes. The other end best does the opposite.',
    }),
    codecs: z.array(z.enum(CODECS)).min(1, 'names no codec; one is needed').max(8).default(['G.711A']).meta({
      title: 'Codecs',
      description: 'What the far end accepts, best first. Example: G.711A, G.722.',
    }),
    transcoding: z.boolean().default(false).meta({
      title: 'Converts codecs',
      description: 'Carries calls whose other side speaks none of its codecs, by converting. Costs quality and power.',
    }),
    deliveredLength: z.number().int().min(1).max(20).nullable().default(null).meta({
      title: 'Digits delivered',
      description: 'How many digits of the called number arrive. Example: 11. Empty: any number of them.',
    }),
    deliveredForm: z.enum(DELIVERED_FORMS).default('plus').meta({
      title: 'Delivered as',
      description: 'How they are to be read once the head is in front. Example: national, as 01632 960150.',
    }),
    deliveredHead: z
      .string()
      .regex(/^\+?[0-9]{0,15}$/, 'takes digits, with + in front where needed')
      .default('')
      .meta({
        title: 'Digits put in front',
        description: 'Put in front of what is delivered. Example: 4066969 before the last three digits.',
      }),
    writes: z.enum(WRITTEN_FORMS).default('plus').meta({
      title: 'Wants numbers as',
      description: 'The form the carrier takes. Example: plus, as +46313900610.',
    }),
    carrierPrefix: digits(8).nullable().default(null).meta({
      title: 'Carrier prefix',
      description: 'Digits sent before every number but emergency ones. Usually none.',
    }),
    isdnNumberType: z.enum(NUMBER_TYPES_ISDN).default('unknown').meta({
      title: 'Type of number',
      description: 'Sent in the called party number element of ISDN (ITU-T Q.931 section 4.5.8).',
    }),
    ownNumber: ref('number', {
      title: 'Main number',
      description: 'Shown when nothing else is set, and where it may show no other.',
    })
      .nullable()
      .default(null),
    showsOriginalCaller: z.boolean().default(false).meta({
      title: 'Shows the original caller',
      description:
        'Whether a forwarded call may carry the first caller’s number. Else our number with a diversion mark.',
    }),
    asserts: z.enum(ASSERTED).default('shown number').meta({
      title: 'Asserts',
      description: 'The identity vouched for beside the shown number (RFC 3325), also when that is withheld.',
    }),
    diversionMark: z.enum(DIVERSION_MARKS).default('diversion').meta({
      title: 'Marks diversion by',
      description: 'How a forwarded call says who forwarded it: Diversion (RFC 5806) or History-Info (RFC 7044).',
    }),
    transit: z.boolean().default(false).meta({
      title: 'Transit',
      description:
        'Whether calls from outside may leave again to digits that the caller chose. Leave off: it is how toll fraud works.',
    }),
    answerSeconds: z.number().int().min(1).max(60).default(5).meta({
      title: 'Answer time',
      description: 'Seconds without any response before the next trunk is tried. Example: 5.',
    }),
    recallSeconds: z.number().int().min(5).max(600).nullable().default(null).meta({
      title: 'Recall after',
      description:
        'Seconds after which a transferred call of this trunk that nobody takes comes back. Empty: as everywhere.',
    }),
    overflowTo: z
      .string()
      .regex(/^\+[1-9][0-9]{4,14}$/, 'is no E.164 number, such as +441632960100')
      .nullable()
      .default(null)
      .meta({
        title: 'Overflow',
        description:
          'The number to which its carrier was told to send calls while it is full or down. Empty: they fail.',
      }),
    otherwise: ref('destination', {
      title: 'All other calls in',
      description: 'Where calls go that fit no number or route. Empty: released as unallocated (Q.850 cause 1).',
    })
      .nullable()
      .default(null),
    recorded: z.boolean().default(false).meta({
      title: 'Records calls',
      description: 'Calls on this trunk are recorded. Callers hear the consent announcement first.',
    }),
    consent: ref('prompt', { title: 'Consent announcement', description: 'Says that the call is recorded.' })
      .nullable()
      .default(null),
    note,
  })
  .refine((t) => t.writes !== 'plus' || t.carrierPrefix === null, {
    path: ['carrierPrefix'],
    message: 'can’t stand before a number that begins with +; choose digits as the form, or no prefix',
  });
export type Trunk = z.output<typeof trunk>;

export const trunkKind = kind(trunk, {
  word: 'trunk',
  words: 'trunks',
  list: 'trunks',
  area: 'outgoing',
  look: 'lines',
  path: '/trunks/{id}',
  secrets: ['password'],
  limits: [{ name: 'channels', words: 'Channels of trunks', uses: (trunk) => trunk.channels }],
});
