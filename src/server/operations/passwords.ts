import { KINDS, type ObjectKind } from '@/core/plan';
import { Refused, demand, type Actor } from '../access/rights';
import { keepSecret, nextVersion, showSecret, strongPassword, type SecretPurpose } from '../access/secrets';
import { reading } from '../db/pool';
import { applyEdits, type EditResult } from '../draft';
import { ask } from '../engine';

/** The kinds that have a password, with the field that points to it and what it is kept as. */
const PASSWORDS = {
  extension: { field: 'sipPassword', purpose: 'sip-password' },
  trunk: { field: 'password', purpose: 'trunk-password' },
} as const satisfies Partial<Record<ObjectKind, { field: string; purpose: Exclude<SecretPurpose, 'pin'> }>>;
type WithPassword = keyof typeof PASSWORDS;

/** Shows the SIP password that the draft's extension has; each showing is recorded. */
export async function showSipPassword(actor: Actor, id: string): Promise<string> {
  const { value, where, label } = await ask('one', { reader: actor, kind: 'extension', id });
  demand(actor, 'seeSecrets', where, label);
  const { sipPassword } = value as { sipPassword: { version: number } | null };
  if (!sipPassword) throw new Refused(404, 'no-secret', 'No password was made for this extension yet.');
  return showSecret(actor, id, label, 'sip-password', sipPassword.version);
}

/** Sets a SIP password in the draft, or makes a strong one, and shows it once. */
export async function makeSipPassword(actor: Actor, id: string, wanted: string | null): Promise<string> {
  const password = wanted ?? strongPassword();
  await setPassword(actor, 'extension', id, password);
  return password;
}

/** Keeps a password and points the draft's object at its new version, in one transaction. */
export async function setPassword(actor: Actor, kind: WithPassword, id: string, password: string): Promise<EditResult> {
  demand(actor, 'edit');
  const { field, purpose } = PASSWORDS[kind];
  const { value, rowVersion } = await ask('one', { reader: actor, kind, id });
  if (rowVersion === null)
    throw new Refused(404, 'no-such-object', `There is no such ${KINDS[kind].word} in the draft.`);
  const version = await reading((c) => nextVersion(c, id, purpose));
  const edit = { kind, id, rowVersion, value: { ...value, [field]: { version } } as Record<string, unknown> };
  return applyEdits(actor, [edit], {
    inside: async (c) => {
      const kept = await keepSecret(c, actor, id, purpose, password);
      if (kept !== version) throw new Refused(409, 'stale', 'Somebody made a password at the same moment; look again.');
    },
  });
}
