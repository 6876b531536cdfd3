import type { NewExtension } from '@/contract/people';
import { EditRefused, demand, type Actor } from '../access/rights';
import { keepSecret, strongPassword } from '../access/secrets';
import { applyEdits, type EditResult } from '../draft';
import { ask } from '../engine';
import { refuseWeak } from '../state/pin';

/** Adds an extension as one act: person, mailbox with PIN, SIP password and number come with it, all or nothing. */
export async function addExtension(actor: Actor, wanted: NewExtension): Promise<EditResult & { id: string }> {
  demand(actor, 'edit');
  const { id, phone, mailbox, pinLeastDigits, edits, act } = await ask('newExtensionEdits', { reader: actor, wanted });
  const pin = wanted.mailbox?.pin;
  if (pin !== undefined) refuseWeak(pin, wanted.digits, 'mailbox.pin', pinLeastDigits);
  try {
    const result = await applyEdits(actor, edits, {
      act,
      inside: async (c) => {
        if (phone) await keepSecret(c, actor, id, 'sip-password', strongPassword());
        if (pin !== undefined) await keepSecret(c, actor, mailbox!, 'pin', pin);
      },
    });
    return { ...result, id };
  } catch (e) {
    if (!(e instanceof EditRefused)) throw e;
    const errors = e.errors.map((x) => ({ ...x, path: fieldOf(x.path) }));
    throw new EditRefused(e.status, e.code, errors, e.detail);
  }
}

/** `edits.0.value.digits` as `digits`; what another part refuses keeps the name of that part in front. */
function fieldOf(path: string): string {
  const [, index, , ...field] = path.split('.');
  if (index === '0' || field[0] === 'name') return field.join('.');
  return field[0] === 'email' ? 'mailbox.email' : field.join('.') || path;
}
