import { PLAN_FORMAT, PLAN_VERSION } from './plan';
import type { InputError } from './problem';

type Document = Record<string, unknown>;

/**
 * What each version's document needs to become one of the next. Version 2 has hours, teams and everything else that a call
 * can be led to; a document of version 1 has none of it, and every new field has a value by itself. In version 3 a mailbox
 * may have several owners. In version 4 there are no web links: a call can't end at one. In version 5 codes that do something
 * are service codes, and the organisation says how it writes dates. `say` is told what was lost.
 */
const STEPS: Record<number, (document: Document, say: (note: string) => void) => Document> = {
  1: (document) => ({ ...document, version: 2 }),
  2: (document) => ({
    ...document,
    version: 3,
    ...(Array.isArray(document.mailboxes) ? { mailboxes: document.mailboxes.map(withOwners) } : {}),
  }),
  3: (document, say) => withoutWebLinks({ ...document, version: 4 }, say),
  4: (document) => withDayOrder(withServiceCodes({ ...document, version: 5 })),
};

/** Codes that do something under the name that they have now. */
function withServiceCodes({ featureCodes, ...document }: Document): Document {
  if (!Array.isArray(featureCodes)) return document;
  const serviceCodes = (featureCodes as unknown[]).map((code) => {
    if (!isObject(code) || !('feature' in code)) return code;
    const { feature, ...rest } = code;
    return { ...rest, service: feature };
  });
  return { ...document, serviceCodes };
}

/** Dates were written as the country of the first site does (Unicode CLDR, short dates). */
function withDayOrder(document: Document): Document {
  const { organisation, sites } = document;
  const first = Array.isArray(sites) ? (sites[0] as unknown) : null;
  if (!isObject(organisation) || !isObject(first) || first.country !== 'US') return document;
  return { ...document, organisation: { ...organisation, dayOrder: 'month first' } };
}

function withOwners(mailbox: unknown): unknown {
  if (typeof mailbox !== 'object' || mailbox === null || !('owner' in mailbox)) return mailbox;
  const { owner, ...rest } = mailbox;
  return { ...rest, owners: owner === null || owner === undefined ? [] : [owner] };
}

const isObject = (value: unknown): value is Document =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** A key of an attendant and a time rule are nothing without their end. */
const NOTHING_WITHOUT_END = new Set(['attendantKeys', 'routeRules']);

/** Takes out web links; what led to one leads nowhere now, and is named. */
function withoutWebLinks({ webLinks, ...document }: Document, say: (note: string) => void): Document {
  const gone = new Map<unknown, string>();
  for (const link of Array.isArray(webLinks) ? (webLinks as unknown[]) : [])
    if (isObject(link)) gone.set(link.id, String(link.name ?? link.id));
  if (gone.size === 0) return document;
  const cleared = (object: Document, list: string): Document | null => {
    const fields = Object.keys(object).filter((f) => f !== 'id' && gone.has(object[f]));
    if (fields.length === 0) return object;
    const links = fields.map((f) => `${gone.get(object[f])} (${f})`).join(', ');
    const whole = NOTHING_WITHOUT_END.has(list);
    say(
      `${list} ${String(object.name ?? object.id)} led to ${links}: ${whole ? 'taken out with it' : 'leads nowhere now'}`,
    );
    if (whole) return null;
    const next = { ...object, ...Object.fromEntries(fields.map((f) => [f, null])) };
    // A presence state that sends calls on needs to know where; without it phones ring.
    for (const f of fields)
      if (f === 'internalTo' || f === 'outsideTo') Object.assign(next, { [f.slice(0, -2)]: 'ring' });
    return next;
  };
  for (const name of gone.values()) say(`web link ${name} is taken out: a call can’t end at one`);
  return Object.fromEntries(
    Object.entries(document).map(([list, value]) => {
      if (list === 'organisation' && isObject(value)) return [list, cleared(value, list)];
      if (!Array.isArray(value)) return [list, value];
      return [list, (value as unknown[]).flatMap((o) => (isObject(o) ? (cleared(o, list) ?? []) : [o]))];
    }),
  );
}

export type Upgraded =
  | { ok: true; document: Document; from: number; /** what was lost on the way */ notes: string[] }
  | { ok: false; errors: InputError[] };

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
  const notes: string[] = [];
  for (let at = version; at < PLAN_VERSION; at++) document = STEPS[at]!(document, (note) => notes.push(note));
  return { ok: true, document, from: version, notes };
}
