import { z } from 'zod';
import { AREAS } from '@/core/plan/facts/area';

/* What somebody may do, and where: the words in which operations say what they need and roles what they grant. */

export const RIGHTS = [
  'look',
  'ask',
  'edit',
  'bulk',
  'goLive',
  'resetPin',
  'setForwarding',
  'actNow',
  'seeCalls',
  'seeNumbers',
  'keepCalls',
  'hearMessages',
  'hearRecordings',
  'exchange',
  'seeSecrets',
  'administer',
  'changeSettings',
] as const;
export type Right = (typeof RIGHTS)[number];

/** Rights about the whole plan or everybody: they can't be limited to an area or a site. */
export const UNLIMITED_RIGHTS: readonly Right[] = ['goLive', 'keepCalls', 'exchange', 'administer', 'changeSettings'];
/** Rights about calls: they can be limited to sites, and not to areas of the plan. */
const BY_SITE_ONLY: readonly Right[] = ['seeCalls', 'seeNumbers', 'hearRecordings'];

export const RIGHT_WORDS: Record<Right, string> = {
  look: 'look at the plan',
  ask: 'ask about calls',
  edit: 'edit the draft',
  bulk: 'take part in bulk work',
  goLive: 'make the draft live',
  resetPin: 'reset mailbox PINs',
  setForwarding: 'set personal forwarding',
  actNow: 'set notices, time switches and blocked callers',
  seeCalls: 'see call records',
  seeNumbers: 'see outside numbers in call records',
  keepCalls: 'bring in call records, and erase people from them',
  hearMessages: 'hear messages that callers left for others',
  hearRecordings: 'hear recordings of calls',
  exchange: 'act as the exchange: bring messages and recordings, open mailboxes',
  seeSecrets: 'see SIP passwords',
  administer: 'manage administrators, roles and API tokens',
  changeSettings: 'change settings',
};

/** A right in some areas and at some sites. */
export const grantSchema = z
  .strictObject({
    right: z.enum(RIGHTS),
    areas: z.union([z.literal('all'), z.array(z.enum(AREAS)).min(1, 'names no area; name some or say all')]),
    sites: z.union([z.literal('all'), z.array(z.string().max(36)).min(1, 'names no site; name some or say all')]),
  })
  .superRefine((grant, ctx) => {
    if (UNLIMITED_RIGHTS.includes(grant.right) && (grant.areas !== 'all' || grant.sites !== 'all'))
      ctx.addIssue({
        code: 'custom',
        path: ['right'],
        message: `${RIGHT_WORDS[grant.right]} concerns everything; it is granted for all areas and sites or not at all`,
      });
    if (BY_SITE_ONLY.includes(grant.right) && grant.areas !== 'all')
      ctx.addIssue({
        code: 'custom',
        path: ['areas'],
        message: `${RIGHT_WORDS[grant.right]} is limited by site only; it is granted for all areas`,
      });
  });
export type Grant = z.output<typeof grantSchema>;

export const roleSchema = z.strictObject({
  name: z.string().trim().min(1, 'is empty').max(80),
  grants: z.array(grantSchema).max(60).min(1, 'grants nothing; a role without rights is of no use'),
});
export type RoleInput = z.output<typeof roleSchema>;
