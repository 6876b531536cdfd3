import { demandFor } from '../access/areas';
import { Refused, demand, type Actor } from '../access/rights';
import { keepSecret, nextVersion, showSecret, strongPassword } from '../access/secrets';
import { applyEdits, type EditResult } from './edit';
import { asEdit } from './pending';
import { draftPlan } from './store';

/** Shows the SIP password that the draft's extension has; each showing is recorded. */
export async function showSipPassword(actor: Actor, id: string): Promise<string> {
  demand(actor, 'seeSecrets');
  const { plan } = await draftPlan();
  const extension = plan.extensions.find((e) => e.id === id);
  if (!extension) throw new Refused(404, 'no-such-object', 'There is no such extension.');
  demandFor(actor, 'seeSecrets', plan, 'extension', extension);
  if (!extension.sipPassword) throw new Refused(404, 'no-secret', 'No password was made for this extension yet.');
  return showSecret(actor, id, 'sip-password', extension.sipPassword.version);
}

/** Sets a SIP password in the draft, or makes a strong one, and shows it once. */
export async function makeSipPassword(actor: Actor, id: string, wanted: string | null): Promise<string> {
  const password = wanted ?? strongPassword();
  await setPassword(actor, 'extension', id, password);
  return password;
}

/** Keeps a password and points the draft's object at its new version, in one transaction. */
export async function setPassword(
  actor: Actor,
  kind: 'extension' | 'trunk',
  id: string,
  password: string,
): Promise<EditResult> {
  demand(actor, 'edit');
  const draft = await draftPlan();
  const extension = kind === 'extension' ? draft.plan.extensions.find((e) => e.id === id) : undefined;
  const trunk = kind === 'trunk' ? draft.plan.trunks.find((t) => t.id === id) : undefined;
  const purpose = kind === 'extension' ? 'sip-password' : 'trunk-password';
  const version = await nextVersion(id, purpose);
  const value = extension
    ? { ...extension, sipPassword: { version } }
    : trunk
      ? { ...trunk, password: { version } }
      : null;
  if (!value) throw new Refused(404, 'no-such-object', `There is no such ${kind}.`);
  return applyEdits(actor, [asEdit(kind, id, draft.rowVersions.get(id) ?? null, value)], {
    inside: async (c) => {
      const kept = await keepSecret(c, actor, id, purpose, password);
      if (kept !== version) throw new Refused(409, 'stale', 'Somebody made a password at the same moment; look again.');
    },
  });
}
