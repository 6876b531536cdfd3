import type { Area } from './area-names';

/** What somebody may do. Checked in server functions for every action (ARCHITECTURE principle 10). */
export const RIGHTS = [
  'look',
  'ask',
  'edit',
  'bulk',
  'goLive',
  'resetPin',
  'setForwarding',
  'seeSecrets',
  'administer',
  'changeSettings',
] as const;
export type Right = (typeof RIGHTS)[number];

/** Rights about the whole plan or everybody: they can't be limited to an area or a site. */
export const UNLIMITED_RIGHTS: readonly Right[] = ['goLive', 'administer', 'changeSettings'];

/** A right, in all areas or some, at all sites or some. What belongs to no site needs a grant for all of them to be edited. */
export interface Grant {
  right: Right;
  areas: 'all' | readonly Area[];
  sites: 'all' | readonly string[];
}

export interface Role {
  id: string;
  name: string;
  grants: readonly Grant[];
}

const everywhere = (...rights: Right[]): Grant[] => rights.map((right) => ({ right, areas: 'all', sites: 'all' }));

/** The roles that come ready and can't be changed; others are made by administrators. */
export const READY_ROLES: readonly Role[] = [
  { id: 'owner', name: 'Owner', grants: everywhere(...RIGHTS) },
  { id: 'administrator', name: 'Administrator', grants: everywhere(...RIGHTS.filter((r) => r !== 'administer')) },
  { id: 'helpdesk', name: 'Help desk', grants: everywhere('look', 'ask', 'resetPin', 'setForwarding') },
  { id: 'auditor', name: 'Auditor', grants: everywhere('look', 'ask') },
];

export const RIGHT_WORDS: Record<Right, string> = {
  look: 'look at the plan',
  ask: 'ask about calls',
  edit: 'edit the draft',
  bulk: 'take part in bulk work',
  goLive: 'make the draft live',
  resetPin: 'reset mailbox PINs',
  setForwarding: 'set personal forwarding',
  seeSecrets: 'see SIP passwords',
  administer: 'manage administrators, roles and API tokens',
  changeSettings: 'change settings',
};

/** Whoever is behind a request. */
export interface Actor {
  account: string;
  name: string;
  signIn: string;
  role: Role;
  address: string;
  via: 'session' | 'token';
  /** has a password from somebody else and must set one of their own before anything else */
  mustChange?: boolean;
}

/** Where an action happens: an area of the plan and a site; null is what belongs to no site. */
export interface Where {
  area: Area;
  site: string | null;
}

/** The rights somebody has anywhere. */
export const rightsOf = (role: Role): readonly Right[] => RIGHTS.filter((r) => role.grants.some((g) => g.right === r));

/** Whether somebody has a right: anywhere when no place is given, else there. Looking at what belongs to no site needs no grant for all. */
export function may(actor: Pick<Actor, 'role'>, right: Right, where?: Where): boolean {
  return actor.role.grants.some(
    (g) =>
      g.right === right &&
      (!where ||
        ((g.areas === 'all' || g.areas.includes(where.area)) &&
          (g.sites === 'all' || (where.site === null ? right === 'look' : g.sites.includes(where.site))))),
  );
}

/** Whether somebody has a right in every area and at every site. */
export function mayEverywhere(actor: Pick<Actor, 'role'>, right: Right): boolean {
  return actor.role.grants.some((g) => g.right === right && g.areas === 'all' && g.sites === 'all');
}

/** An answer that a door gives instead of a result: HTTP status and errors. */
export class Refused extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    sentence: string,
    readonly path = '',
    readonly detail?: Record<string, unknown>,
  ) {
    super(sentence);
  }
}

/** Throws 403 unless the actor has the right, there when a place is given. `what` names the thing in the sentence. */
export function demand(actor: Actor, right: Right, where?: Where, what = ''): void {
  if (may(actor, right, where)) return;
  const limited = where && may(actor, right) ? ` ${what ? `for ${what}` : 'there'}` : '';
  throw new Refused(
    403,
    'not-allowed',
    `The role ${actor.role.name} may not ${RIGHT_WORDS[right]}${limited}; somebody with that right can.`,
  );
}

/** Throws 403 unless the actor has the right in every area and at every site. */
export function demandEverywhere(actor: Actor, right: Right): void {
  if (!mayEverywhere(actor, right))
    throw new Refused(
      403,
      'not-allowed',
      `The role ${actor.role.name} may not ${RIGHT_WORDS[right]} in every area and at every site; somebody with that right can.`,
    );
}
