import { PLAN_FORMAT, PLAN_VERSION } from './plan';
import type { InputError } from './problem';

type Document = Record<string, unknown>;

/**
 * What each version's document needs to become one of the next. Version 2 has hours, teams and everything else that a call
 * can be led to; a document of version 1 has none of it, and every new field has a value by itself. In version 3 a mailbox
 * may have several owners.
 */
const STEPS: Record<number, (document: Document) => Document> = {
  1: (document) => ({ ...document, version: 2 }),
  2: (document) => ({
    ...document,
    version: 3,
    ...(Array.isArray(document.mailboxes) ? { mailboxes: document.mailboxes.map(withOwners) } : {}),
  }),
};

function withOwners(mailbox: unknown): unknown {
  if (typeof mailbox !== 'object' || mailbox === null || !('owner' in mailbox)) return mailbox;
  const { owner, ...rest } = mailbox;
  return { ...rest, owners: owner === null || owner === undefined ? [] : [owner] };
}

export type Upgraded = { ok: true; document: Document; from: number } | { ok: false; errors: InputError[] };

/** A plan document as one of the newest version; the input is not changed. Refuses what is no plan document or is newer. */
export function upgradeDocument(input: unknown): Upgraded {
  const wrong = (path: string, sentence: string): Upgraded => ({
    ok: false,
    errors: [{ code: 'invalid_type', path, sentence }],
  });
  if (typeof input !== 'object' || input === null || Array.isArray(input))
    return wrong('', 'The input is of the wrong type; an object is needed.');
  const { format, version } = input as Document;
  if (format !== PLAN_FORMAT) return wrong('format', `format must be ${PLAN_FORMAT}.`);
  if (typeof version !== 'number' || !Number.isInteger(version) || version < 1)
    return wrong('version', `version must be a whole number of 1 to ${PLAN_VERSION}.`);
  if (version > PLAN_VERSION)
    return wrong('version', `version is ${version}; this program reads up to ${PLAN_VERSION}. A newer one is needed.`);
  let document = input as Document;
  for (let at = version; at < PLAN_VERSION; at++) document = STEPS[at]!(document);
  return { ok: true, document, from: version };
}
