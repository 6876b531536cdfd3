import { admitsOne, spokenAt, usedOf } from '../exchange/link';
import type { Difference, ObjectKind, Plan, Site } from '../plan';
import type { Situation } from '../routing';

/** What an edited field of a site or of the organisation decides, beside emergency calls, which are asked in any case. */
type Part =
  /** what phones of the site dial */
  | 'dialling'
  /** calls that come in by its trunks */
  | 'coming in'
  /** calls to its phones, and what they lead on */
  | 'phones'
  /** calls that its attendants and outside numbers lead outside */
  | 'leading out'
  /** what is heard in its queues */
  | 'queues'
  /** calls to the number that stands there */
  | 'number'
  /** calls to phones that reject who hides their number */
  | 'rejecting'
  /** any call */
  | 'all';

const AROUND: readonly Part[] = ['dialling', 'coming in', 'phones', 'leading out'];
const NOTHING: readonly Part[] = [];

/**
 * Fields of a site that decide no more than parts. All others decide how any number is read, or go with a call wherever it comes to:
 * what is spoken, and whether there is room on the link.
 */
const OF_SITE: Partial<Record<keyof Site, readonly Part[]>> = {
  name: NOTHING,
  note: NOTHING,
  address: NOTHING,
  emergencyTrunks: NOTHING,
  emergencyNotify: NOTHING,
  emergencyCallback: NOTHING,
  music: ['queues'],
  blockedCallers: ['coming in'],
  blockedLeadTo: ['coming in'],
  mainNumber: [...AROUND, 'number'],
  ladder: AROUND,
};

const OF_ORGANISATION: Partial<Record<keyof Plan['organisation'], readonly Part[]>> = {
  name: NOTHING,
  note: NOTHING,
  language: NOTHING,
  dayOrder: NOTHING,
  secondPerson: NOTHING,
  quietTimes: NOTHING,
  pinLeastDigits: NOTHING,
  blockedCallers: ['coming in'],
  blockedLeadTo: ['coming in'],
  rejectsWithheld: ['coming in'],
  withheldLeadTo: ['coming in', 'rejecting'],
};

/** Fields by which somebody is called back after an emergency call. */
const CALLED_BACK: ReadonlySet<string> = new Set(['emergencyNotify', 'emergencyCallback', 'mainNumber']);

/** What of a plan edits of its sites and of the organisation concern. */
export interface Concern {
  /** any call */
  all: boolean;
  /** sites of which all that their phones dial may go otherwise */
  dialling: ReadonlySet<string>;
  /** objects that calls may meet */
  met: (plan: Plan) => [string, ObjectKind][];
  /** trunks of which calls that come in by them may go otherwise */
  entered: (plan: Plan) => string[];
}

/** What edits of sites and of the organisation can make a difference to, by their fields. More may be named than there is, never less. */
export function concernOf(plans: readonly Plan[], edits: readonly Difference[], situation: Situation): Concern {
  const concerned = edits.filter((e) => e.kind === 'site' || e.kind === 'organisation');
  const partsOf = new Map(concerned.map((e) => [e, parts(plans, e, situation)]));
  const having = (part: Part) => concerned.filter((e) => partsOf.get(e)!.has(part));
  const sites = (part: Part) => new Set(having(part).flatMap((e) => (e.kind === 'site' ? [e.id] : [])));
  const [dialling, phones, queues] = [sites('dialling'), sites('phones'), sites('queues')];
  const [comingIn, leading] = [sites('coming in'), sites('leading out')];
  const rejecting = having('rejecting').length > 0;
  const anywhere = having('coming in').some((e) => e.kind === 'organisation');
  const numbers = having('number').flatMap(({ before, after }) =>
    [before, after].flatMap((o) => (o as Site).mainNumber ?? []),
  );
  return {
    all: having('all').length > 0,
    dialling,
    met: (plan) => [
      ...numbers.map((id): [string, ObjectKind] => [id, 'number']),
      ...idsAt(plan.extensions, phones).map((id): [string, ObjectKind] => [id, 'extension']),
      ...(rejecting ? plan.extensions.filter((e) => e.rejectsWithheld) : []).map(({ id }): [string, ObjectKind] => [
        id,
        'extension',
      ]),
      ...idsAt(plan.outsideNumbers, leading).map((id): [string, ObjectKind] => [id, 'outsideNumber']),
      ...idsAt(
        plan.attendants.filter((a) => a.outsideDialling),
        leading,
      ).map((id): [string, ObjectKind] => [id, 'attendant']),
      ...idsAt(
        plan.queues.filter((q) => q.music === null),
        queues,
      ).map((id): [string, ObjectKind] => [id, 'queue']),
    ],
    entered: (plan) => plan.trunks.flatMap((t) => (anywhere || comingIn.has(t.site) ? t.id : [])),
  };
}

const idsAt = (list: readonly { id: string; site: string }[], sites: ReadonlySet<string>): string[] =>
  sites.size === 0 ? [] : list.flatMap((o) => (sites.has(o.site) ? o.id : []));

/** What the edited fields decide. */
function parts(plans: readonly Plan[], edit: Difference, situation: Situation): ReadonlySet<Part> {
  const { kind, before, after } = edit;
  if (!before || !after) return new Set<Part>(['all']);
  const table: Readonly<Record<string, readonly Part[] | undefined>> = kind === 'site' ? OF_SITE : OF_ORGANISATION;
  const [a, b] = [before, after] as unknown as Record<string, unknown>[];
  const out = new Set<Part>();
  for (const field of Object.keys(b!)) {
    if (JSON.stringify(a![field]) === JSON.stringify(b![field])) continue;
    const decides = decidesNothing(field, plans, edit, situation) ? NOTHING : table[field];
    for (const part of decides ?? (['all'] as const)) out.add(part);
    if (situation.emergencyCalls?.length && CALLED_BACK.has(field)) out.add('all');
  }
  return out;
}

/** How wide the link of a site is, and what of it a call takes. */
const LINK: ReadonlySet<string> = new Set(['linkKbitPerSecond', 'linkLayer', 'linkIp']);

/** Whether a field decides nothing here: how wide a link is that has room for a call before and after, how soon a transfer comes back where none is made, on which clock days of numbers begin where none has any. */
function decidesNothing(
  field: string,
  plans: readonly Plan[],
  { kind, id, before, after }: Difference,
  situation: Situation,
): boolean {
  if (kind === 'organisation') return field === 'recallSeconds' && !situation.transfers?.length;
  if (LINK.has(field)) {
    const used = usedOf(situation, id);
    const admits = (site: Site) =>
      plans.flatMap((p) => spokenAt(p, id).map((spoken) => admitsOne(site, spoken, used))).join();
    return admits(before as Site) === admits(after as Site);
  }
  return field === 'zone' && !plans.some((p) => p.numbers.some((n) => n.site === id && n.activeFrom !== null));
}
