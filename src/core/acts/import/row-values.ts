import { EXTENSION_KINDS, type Extension, type Mailbox, type Person } from '../../plan';
import { nameKey, wrong, type Cell } from './cells';

/* What single cells of a row say, and what a row makes that is not there yet. */

export const newPerson = (id: string, site: string): Person =>
  ({ id, name: '', email: null, site, teams: [], spelling: '', language: '', note: '' }) as Person;

export const newMailbox = (id: string, site: string, person: Person | null): Mailbox =>
  ({ id, name: '', site, owners: person ? [person.id] : [], email: person?.email ?? null }) as unknown as Mailbox;

export function readKind(text: string): Cell<Extension['kind']> {
  const kind = nameKey(text) || 'person';
  const found = EXTENSION_KINDS.find((k) => k === kind);
  return found ? { ok: true, value: found } : wrong(`“${text}” is no kind: ${EXTENSION_KINDS.join(', ')}.`);
}

export function readSeconds(text: string): Cell<number> {
  const match = /^([0-9]{1,4})(?:\.0+)?\s*(?:s|sec|seconds)?$/i.exec(text);
  return match ? { ok: true, value: Number(match[1]) } : wrong(`“${text}” are no seconds; 5 to 180, such as 25.`);
}

export function readAfterMail(text: string): Cell<Mailbox['afterMail']> {
  const word = nameKey(text);
  if (word === '' || word === 'keep') return { ok: true, value: 'keep' };
  return word === 'delete' ? { ok: true, value: 'delete' } : wrong(`“${text}” is neither keep nor delete.`);
}
