import type { HistoryEntry } from '@/contract/work';
import { valueWords } from '@/core/plan/facts/value-words';
import {
  changedFields,
  isKind,
  labelOf,
  titleOf,
  wordOf,
  KINDS,
  type AnyObject,
  type DraftKind,
  type ObjectKind,
} from '@/core/plan';

/* Rows of the journal and of the history in words. */

/** A row as the database gave it. */
export type Found = Record<string, unknown>;

/** A JSON column, however the driver gives it. */
export const json = (v: unknown): Record<string, unknown> | null =>
  v === null || v === undefined ? null : ((typeof v === 'string' ? JSON.parse(v) : v) as Record<string, unknown>);

/** A journal row: what was done to which object, field by field. */
export function editEntry(key: string, r: Found, names: Names): HistoryEntry {
  const kind = r.object_kind as DraftKind;
  const [before, after] = [json(r.before_value), json(r.after_value)];
  const object = (after ?? before) as unknown as AnyObject;
  const secrets: readonly string[] = isKind(kind) ? (KINDS[kind].secrets ?? []) : [];
  const fields =
    before && after
      ? changedFields(before, after).map((f) => ({
          title: titleIn(kind, f),
          ...(secrets.includes(f) ? masked(before[f], after[f]) : inWords(f, before[f], after[f], names)),
        }))
      : [];
  return {
    key,
    at: (r.at as Date).toISOString(),
    who: r.name as string,
    address: r.address as string,
    batch: r.batch as string,
    undone: r.undone === 1,
    // A kind that an older version of the program had keeps the name it had.
    kind: kind === 'organisation' || isKind(kind) ? wordOf(kind) : String(kind),
    id: kind === 'organisation' ? 'organisation' : object.id,
    label: kind === 'organisation' ? 'the organisation' : isKind(kind) ? safeLabel(kind, object) : object.id,
    action: before === null ? 'added' : after === null ? 'deleted' : 'changed',
    fields,
  };
}

/** A kind or field that an older version of the program had keeps the name it had. */
const titleIn = (kind: DraftKind, field: string): string =>
  (kind === 'organisation' || isKind(kind) ? titleOf(kind, field) : undefined) ?? field;

/** Rows of older versions of the program may lack fields that a label is made of. */
function safeLabel(kind: ObjectKind, object: AnyObject): string {
  try {
    return labelOf(kind, object);
  } catch {
    return object.id;
  }
}

export type Names = Readonly<Record<string, string>>;

/** Of secrets just that there is one. */
function masked(before: unknown, after: unknown): { before: string; after: string } {
  const mask = (v: unknown) => (v === null ? 'none' : '•••');
  return { before: mask(before), after: mask(after) };
}

/** A field before and after: references by name, of structures only the parts that differ. */
function inWords(field: string, before: unknown, after: unknown, names: Names): { before: string; after: string } {
  const said = (value: unknown) => valueWords(field, value, (id) => names[id]);
  if (!isRecord(before) || !isRecord(after)) return { before: said(before), after: said(after) };
  const keys = changedFields(before, after);
  const differing = (o: Record<string, unknown>) => Object.fromEntries(keys.map((k) => [k, o[k] ?? null]));
  return { before: said(differing(before)), after: said(differing(after)) };
}

const isRecord = (v: unknown): v is Record<string, unknown> => typeof v === 'object' && v !== null && !Array.isArray(v);

const ACTIONS: Record<string, string> = {
  'signed-in': 'signed in',
  'sign-in-refused': 'was refused at sign-in',
  'token-made': 'made an API token',
  'token-revoked': 'revoked an API token',
  'password-shown': 'had a password shown',
  'password-changed': 'changed the own password',
  'pin-set': 'set a PIN',
  'pin-refused': 'was refused at a mailbox by telephone',
  'message-handled': 'handled a message of others',
  'recording-heard': 'heard the recording of',
  'mail-settings-changed': 'changed the mail server',
  'person-invited': 'invited somebody to a page of their own',
  'person-joined': 'opened a page of their own',
  'presence-set': 'said how they are',
  'reach-set': 'set a reach plan of their own',
  'reach-ended': 'went back to the reach plan of the plan',
  'greeting-set': 'set a greeting of their own',
  'agent-set': 'signed an agent in or out, or paused one',
  'callback-asked': 'asked to be called back',
  'called-back': 'called somebody back who had asked for it',
  'greeting-ended': 'went back to the greeting of the plan',
  'forwarding-set': 'set forwarding',
  'forwarding-ended': 'ended forwarding',
  'notice-set': 'set a notice',
  'notice-ended': 'ended a notice',
  'switch-set': 'set a time switch',
  'calendar-address-made': 'made a calendar address',
  'calendar-address-revoked': 'revoked a calendar address',
  'calendar-feed-set': 'set a calendar feed',
  'calendar-feed-dropped': 'dropped a calendar feed',
  'caller-blocked': 'blocked a caller',
  'caller-unblocked': 'let a blocked caller through',
  'problem-muted': 'left a problem as it is',
  'problem-counted': 'counts a problem again',
  'rehearsal-kept': 'kept a rehearsal as a test',
  'rehearsal-dropped': 'keeps a rehearsal no longer',
  'settings-changed': 'changed settings',
  'second-factor-on': 'turned the second factor on',
  'second-factor-off': 'turned a second factor off',
  'session-ended': 'ended a session',
  'owner-made': 'became the owner, by the code of the first start',
  'administrator-added': 'added an administrator',
  'administrator-changed': 'changed an administrator',
  'role-made': 'made a role',
  'role-changed': 'changed a role',
  'role-deleted': 'deleted a role',
  'limits-changed': 'changed limits',
  imported: 'imported a sheet',
  'calls-imported': 'brought in a call log',
  'calls-exported': 'took call records out as a file',
  'calls-erased': 'erased somebody from the call records',
  'web-link-taken-out': 'took out a web link: a call can’t end at one',
};

/** A row about access and state. */
export function actEntry(key: string, r: Found): HistoryEntry {
  const detail = json(r.detail) ?? {};
  return {
    key,
    at: (r.at as Date).toISOString(),
    who: (r.name as string | null) ?? String(detail.name ?? 'somebody unknown'),
    address: r.address as string,
    batch: null,
    undone: false,
    kind: '',
    id: r.object_id as string | null,
    label: typeof detail.of === 'string' ? detail.of : '',
    action: ACTIONS[r.action as string] ?? (r.action as string),
    fields: Object.entries(detail)
      .filter(([k]) => k !== 'batch' && k !== 'of')
      .map(([title, v]) => ({ title, before: '', after: typeof v === 'string' ? v : JSON.stringify(v) })),
  };
}
