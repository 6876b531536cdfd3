import { RIGHTS, RIGHT_WORDS, type Grant, type Right } from '@/contract/rights';
import type { OneError } from '@/contract/shared';
import type { Area } from '@/core/plan';

/* What somebody may do, checked in server functions for every action (ARCHITECTURE principle 10). */

export interface Role {
  id: string;
  name: string;
  grants: readonly Grant[];
}

const everywhere = (...rights: Right[]): Grant[] => rights.map((right) => ({ right, areas: 'all', sites: 'all' }));

/** Nobody hears what callers left for others, nor recordings, unless a role of one's own says so. */
const HEARING: readonly Right[] = ['hearMessages', 'hearRecordings'];

/** The roles that come ready and can't be changed; others are made by administrators. */
export const READY_ROLES: readonly Role[] = [
  { id: 'owner', name: 'Owner', grants: everywhere(...RIGHTS.filter((r) => !HEARING.includes(r))) },
  {
    id: 'administrator',
    name: 'Administrator',
    grants: everywhere(...RIGHTS.filter((r) => r !== 'administer' && r !== 'exchange' && !HEARING.includes(r))),
  },
  {
    id: 'helpdesk',
    name: 'Help desk',
    grants: everywhere('look', 'ask', 'resetPin', 'setForwarding', 'seeCalls', 'seeNumbers'),
  },
  { id: 'auditor', name: 'Auditor', grants: everywhere('look', 'ask', 'seeCalls') },
];

/** The role of people who are no administrators: it grants nothing, their own page asks only who they are. */
export const PERSON_ROLE: Role = { id: 'person', name: 'Person', grants: [] };

/** Whoever is behind a request. */
export interface Actor {
  account: string;
  name: string;
  signIn: string;
  role: Role;
  address: string;
  via: 'session' | 'token';
  /** the person of the plan that this account is of; left out: an administrator's */
  person?: string;
  /** a person without a second factor, where the organisation asks for one */
  needsSecondFactor?: boolean;
  /** has a password from somebody else and must set one of their own before anything else */
  mustChange?: boolean;
}

/** Where an action happens: an area of the plan and a site; null is what belongs to no site. */
export interface Where {
  area: Area;
  site: string | null;
}

const both = <T>(a: 'all' | readonly T[], b: 'all' | readonly T[]): 'all' | T[] =>
  a === 'all' ? (b === 'all' ? 'all' : [...b]) : b === 'all' ? [...a] : a.filter((x) => b.includes(x));

/** A role with what another has too, right by right and place by place. */
export function narrowed(role: Role, by: Role): Role {
  const grants = role.grants.flatMap((a) =>
    by.grants.flatMap((b): Grant[] => {
      if (a.right !== b.right) return [];
      const [areas, sites] = [both<Area>(a.areas, b.areas), both<string>(a.sites, b.sites)];
      return areas.length === 0 || sites.length === 0 ? [] : [{ right: a.right, areas, sites }];
    }),
  );
  return { ...role, grants };
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

/** The sites at which somebody has a right. */
export function sitesWith(actor: Pick<Actor, 'role'>, right: Right): 'all' | string[] {
  const sites = actor.role.grants.filter((g) => g.right === right).map((g) => g.sites);
  return sites.includes('all') ? 'all' : [...new Set(sites.flat())];
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

  /** everything that is wrong, the first of it first */
  get errors(): OneError[] {
    return [{ code: this.code, path: this.path, sentence: this.message }];
  }
}

/** An edit that can't be made: bad values with their fields, or somebody was faster. */
export class EditRefused extends Refused {
  constructor(
    status: number,
    code: string,
    private readonly all: OneError[],
    detail?: Record<string, unknown>,
  ) {
    super(status, code, all[0]?.sentence ?? 'The edit can’t be made.', all[0]?.path ?? '', detail);
  }

  override get errors(): OneError[] {
    return this.all;
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

/** The person whose account asks; 403 for anybody else, and for those who have to prove a second factor first. */
export function demandPerson(actor: Actor): string {
  if (actor.person === undefined)
    throw new Refused(
      403,
      'not-allowed',
      'This is for people on the page of their own; this account is none of theirs.',
    );
  if (actor.needsSecondFactor)
    throw new Refused(403, 'needs-second-factor', 'Turn your second factor on first: the organisation asks for it.');
  return actor.person;
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
