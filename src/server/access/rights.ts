/** What somebody may do. Checked in server functions for every action (ARCHITECTURE principle 10). */
export const RIGHTS = [
  'look',
  'ask',
  'edit',
  'goLive',
  'resetPin',
  'setForwarding',
  'seeSecrets',
  'manageTokens',
  'changeSettings',
] as const;
export type Right = (typeof RIGHTS)[number];

export const ROLES = ['administrator', 'helpdesk', 'auditor'] as const;
export type Role = (typeof ROLES)[number];

const OF_ROLE: Record<Role, readonly Right[]> = {
  administrator: RIGHTS,
  helpdesk: ['look', 'ask', 'resetPin', 'setForwarding'],
  auditor: ['look', 'ask'],
};

export const ROLE_WORDS: Record<Role, string> = {
  administrator: 'Administrator',
  helpdesk: 'Help desk',
  auditor: 'Auditor',
};

const RIGHT_WORDS: Record<Right, string> = {
  look: 'look at the plan',
  ask: 'ask about calls',
  edit: 'edit the draft',
  goLive: 'make the draft live',
  resetPin: 'reset mailbox PINs',
  setForwarding: 'set personal forwarding',
  seeSecrets: 'see SIP passwords',
  manageTokens: 'make and revoke API tokens',
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
}

export const rightsOf = (role: Role): readonly Right[] => OF_ROLE[role];
export const may = (actor: Pick<Actor, 'role'>, right: Right): boolean => OF_ROLE[actor.role].includes(right);

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

/** Throws 403 unless the actor has the right. */
export function demand(actor: Actor, right: Right): void {
  if (!may(actor, right))
    throw new Refused(
      403,
      'not-allowed',
      `${ROLE_WORDS[actor.role]} accounts may not ${RIGHT_WORDS[right]}; an administrator can.`,
    );
}
