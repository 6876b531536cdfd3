import { z } from 'zod';
import { emergencyNumbersOf, showNumber } from '../numbers';
import { bandwidthOf, callsWithin, type LinkLayer } from '../load';
import { RULED_KINDS, labelOf, objectsOf, referrersTo, type AnyObject, type ObjectKind } from '../plan';
import { outcomeOf, trace, type Exchange, type Landing, type Situation } from '../routing';
import { CALL_KIND_WORDS } from '../numbers/kinds';
import { reachOfRungs } from './ladder';

/* What an object does, before it is asked about its fields: the first thing on its page. */

/** One line of a picture: what kind of end or object, its words, and where it opens. */
const line = z.strictObject({
  kind: z.string(),
  label: z.string(),
  detail: z.string(),
  object: z.strictObject({ kind: z.string(), id: z.string() }).nullable(),
});
export type PictureLine = z.output<typeof line>;

export const pictureSchema = z.strictObject({
  /** lines under a small heading each */
  groups: z.array(z.strictObject({ title: z.string(), lines: z.array(line), more: z.number() })),
});
export type Picture = z.output<typeof pictureSchema>;
type Group = Picture['groups'][number];

const MOST = 6;

const group = (title: string, lines: readonly PictureLine[]): Group => ({
  title,
  lines: lines.slice(0, MOST),
  more: Math.max(0, lines.length - MOST),
});
const plain = (kind: string, label: string, detail = ''): PictureLine => ({ kind, label, detail, object: null });
const of = (kind: ObjectKind, object: AnyObject, detail = ''): PictureLine => ({
  kind,
  label: labelOf(kind, object),
  detail,
  object: { kind, id: object.id },
});

/** What is asked of: the plan, an object's id, the moment, and what holds then. */
interface Asked {
  exchange: Exchange;
  id: string;
  now: number;
  situation: Situation;
}

const none: Picture = { groups: [] };
const groups = (...list: Group[]): Picture => ({ groups: list.filter((g) => g.lines.length > 0) });

const find = <K extends ObjectKind>({ exchange, id }: Asked, kind: K) =>
  (objectsOf(exchange.plan, kind) as readonly AnyObject[]).find((o) => o.id === id);

/** A rule's place in its ladder, what it takes, and what those around it do. */
function rungPicture(asked: Asked): Picture {
  const { exchange, id } = asked;
  const rung = exchange.plan.rungs.find((r) => r.id === id);
  const ladder = rung && exchange.plan.ladders.find((l) => l.id === rung.ladder);
  if (!rung || !ladder) return none;
  const rungs = exchange.rungsOf.get(ladder.id) ?? [];
  const i = rungs.findIndex((r) => r.rung.id === id);
  const reach = reachOfRungs(rungs, exchange)[i];
  const names = (reach?.coveredBy ?? []).map((x) => rungs.find((r) => r.rung.id === x)!.rung.name);
  const around = [i - 1, i, i + 1].flatMap((j): PictureLine[] => {
    const r = rungs[j]?.rung;
    return r ? [{ ...of('rung', r, j === i ? 'this rule' : r.map), label: `${j + 1}  ${r.name}` }] : [];
  });
  const sites = exchange.plan.sites.filter((s) => s.ladder === ladder.id);
  return groups(
    group(`Place ${i + 1} of ${rungs.length} in ${ladder.name}`, around),
    group('What it takes', [
      names.length > 0
        ? plain('refused', `Nothing: ${names.join(', ')} above takes all of it.`)
        : plain('rung', `${rung.map}`, `${Number(reach?.count ?? 0).toLocaleString('en')} dialled strings`),
    ]),
    group(
      'Leaves by',
      rung.trunks.map((t, n) => of('trunk', exchange.trunks.get(t)!, n === 0 ? 'first' : 'when that is full or fails')),
    ),
    group(
      'Used by',
      sites.map((s) => of('site', s)),
    ),
  );
}

/** Who has a class, and what they may dial. */
function classPicture(asked: Asked): Picture {
  const { exchange, id } = asked;
  const found = exchange.plan.classes.find((c) => c.id === id);
  if (!found) return none;
  const who = exchange.plan.extensions.filter((e) => e.class === id);
  const words = (may: (kind: (typeof RULED_KINDS)[number]) => boolean) =>
    RULED_KINDS.filter(may)
      .map((k) => CALL_KIND_WORDS[k])
      .join(', ') || 'nothing';
  return groups(
    group(
      `${who.length} ${who.length === 1 ? 'extension has' : 'extensions have'} it`,
      who.map((e) => of('extension', e)),
    ),
    group('What they can dial', [
      plain(
        'outside',
        words((k) => found.rights[k].allow && !found.rights[k].pin),
        'freely; emergency calls always',
      ),
      plain(
        'outside',
        words((k) => found.rights[k].allow && found.rights[k].pin),
        'with a PIN',
      ),
      plain(
        'refused',
        words((k) => !found.rights[k].allow),
        'refused: they hear that the call is barred',
      ),
    ]),
  );
}

/** Whether emergency calls of a site get out, and what its link carries. */
function sitePicture(asked: Asked): Picture {
  const { exchange, id, now } = asked;
  const site = exchange.sites.get(id);
  if (!site) return none;
  const phones = exchange.plan.extensions.filter((e) => e.site === id);
  const phone = phones.find((e) => e.kind !== 'virtual');
  const emergency = emergencyNumbersOf(site.country).map((number): PictureLine => {
    if (!phone) return plain('outside', number, 'no phone yet to dial it');
    const t = trace(exchange, { from: { type: 'extension', id: phone.id }, dial: number, enBloc: false, at: now });
    if (t.outcome !== 'routed') return plain('refused', `${number} does not get out`, t.steps.at(-1)?.sentence ?? '');
    const trunk = t.trunk ? exchange.trunks.get(t.trunk)!.name : '?';
    return plain('outside', `${number} leaves by ${trunk}`, `shows ${t.shownNumber ?? 'no number'}`);
  });
  const link =
    site.linkKbitPerSecond === null
      ? [plain('trunk', 'not limited', 'any number of calls to other sites')]
      : (['G.711A', 'G.729'] as const).flatMap((codec) => {
          const per = bandwidthOf(codec, 20, site.linkIp === '6' ? 6 : 4, site.linkLayer as LinkLayer);
          if (!per.ok) return [];
          const calls = callsWithin(site.linkKbitPerSecond!, per.kbitPerSecond);
          return [plain('trunk', `${calls} ${calls === 1 ? 'call' : 'calls'} at once`, `with ${codec}`)];
        });
  return groups(
    group('Emergency calls from here', emergency),
    group('Its link carries', link),
    group('Here', [
      plain('extension', `${phones.length} ${phones.length === 1 ? 'extension' : 'extensions'}`),
      plain('number', `${exchange.plan.numbers.filter((n) => n.site === id).length} numbers`),
    ]),
  );
}

/** What arrives on a trunk and which rules leave by it. */
function trunkPicture(asked: Asked): Picture {
  const { exchange, id } = asked;
  const trunk = exchange.trunks.get(id);
  if (!trunk) return none;
  const { country } = exchange.sites.get(trunk.site)!;
  const numbers = exchange.plan.numbers.filter((n) => n.trunk === id);
  const rules = exchange.plan.rungs.filter((r) => r.trunks.includes(id));
  return groups(
    group(`Calls in: ${numbers.length} numbers`, [
      ...numbers.slice(0, 4).map((n) => ({ ...of('number', n), label: showNumber(n.e164, country) })),
      ...(numbers.length > 4 ? [plain('number', `and ${numbers.length - 4} more`)] : []),
      ...(trunk.otherwise
        ? [plain('rule', `anything else: ${exchange.destinations.get(trunk.otherwise)?.object.name ?? ''}`)]
        : [plain('refused', 'anything else is released as unallocated')]),
    ]),
    group(
      'Calls out: rules that leave by it',
      rules.map((r) => {
        const ladder = exchange.plan.ladders.find((l) => l.id === r.ladder)!.name;
        return of('rung', r, `${r.trunks[0] === id ? 'first' : `place ${r.trunks.indexOf(id) + 1}`}, ${ladder}`);
      }),
    ),
    group(
      'Emergency calls of',
      exchange.plan.sites.filter((s) => s.emergencyTrunks.includes(id)).map((s) => of('site', s)),
    ),
  );
}

const landing = (l: Landing | null, outcome: string, detail: string): PictureLine =>
  plain(l?.kind ?? 'refused', l?.label ?? outcome, detail);

/** What a call to somebody's digits does now, and how they are reached from outside. */
function extensionPicture(asked: Asked): Picture {
  const { exchange, id, now, situation } = asked;
  const e = exchange.extensions.get(id);
  if (!e) return none;
  const other = exchange.plan.extensions.find((x) => x.site === e.site && x.id !== id && x.kind !== 'virtual');
  const inside = other
    ? outcomeOf(
        exchange,
        { from: { type: 'extension', id: other.id }, dial: e.digits, enBloc: true, at: now },
        situation,
      )
    : null;
  const { country } = exchange.sites.get(e.site)!;
  const numbers = exchange.numberOf.get(id) ?? [];
  return groups(
    group(
      'A colleague who calls',
      inside
        ? [
            landing(inside.lands, inside.outcome, ''),
            ...inside.then.map((t) => landing(t.lands, '', `${t.when}, after ${t.afterSeconds} s`)),
          ]
        : [],
    ),
    group(
      'From outside by',
      numbers.map((n) => ({ ...of('number', n), label: showNumber(n.e164, country) })),
    ),
  );
}

/** Who hears what callers leave, and whose calls come here. */
function mailboxPicture(asked: Asked): Picture {
  const { exchange, id } = asked;
  const mailbox = find(asked, 'mailbox') as { owners: string[]; email: string | null; on: boolean } | undefined;
  if (!mailbox) return none;
  return groups(
    group('Who listens', [
      ...mailbox.owners.map((o) => of('person', exchange.people.get(o)!)),
      ...(mailbox.email ? [plain('person', mailbox.email, 'gets a mail for each message')] : []),
      ...(mailbox.owners.length === 0 && !mailbox.email ? [plain('refused', 'nobody')] : []),
    ]),
    group(
      'Calls that come here',
      mailbox.on
        ? referrersTo(exchange.plan, id).map((r) => of(r.kind, r.object as AnyObject))
        : [plain('refused', 'none: it takes no messages')],
    ),
  );
}

/** Rules that name a team. */
function teamPicture(asked: Asked): Picture {
  return groups(
    group(
      'Rules that name it',
      referrersTo(asked.exchange.plan, asked.id)
        .filter((r) => r.kind !== 'person')
        .map((r) => of(r.kind, r.object as AnyObject)),
    ),
  );
}

const PICTURES = {
  rung: rungPicture,
  class: classPicture,
  site: sitePicture,
  trunk: trunkPicture,
  extension: extensionPicture,
  mailbox: mailboxPicture,
  team: teamPicture,
} as const;

/** Kinds whose pages begin with a picture of what the object does. */
export type PicturedKind = keyof typeof PICTURES;
export const isPictured = (kind: string): kind is PicturedKind => Object.hasOwn(PICTURES, kind);

/** What an object does, as its page shows it first. */
export const pictureOf = (kind: PicturedKind, asked: Asked): Picture => PICTURES[kind](asked);
