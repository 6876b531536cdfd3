import { v7 as uuid } from 'uuid';
import { SAME_PARTS, planSameAs } from '@/core/acts/people';
import type { NewExtension } from '@/contract/people';
import type { WholeEdit } from '@/contract/plan';
import {
  KINDS,
  freeDigits,
  grouped,
  inputErrors,
  planWith,
  type AnyObject,
  type Changed,
  type Extension,
  type Mailbox,
  type ObjectKind,
  type Plan,
} from '@/core/plan';
import { EditRefused, may } from '../../access/rights';
import { named, numberAt, optionsFor } from '../ground/options';
import { sightIn, type By, type Given } from '../ground/question';
import { asEdits } from '../ground/as-edits';

/* A new extension with everything that belongs to it. */

const OFFERED = 6;

/** What the form for a new extension proposes: per site the free digits and free numbers, and the one to be like. */
export function newExtension({ draft }: Given, { asked, reader }: By & { asked: { site?: string; like?: string } }) {
  const { plan } = draft;
  const sight = sightIn(draft, reader);
  const mine = sight.list('extension');
  const like = mine.find((e) => e.id === asked.like) ?? null;
  const { options, long } = optionsFor(sight, ['person']);
  const sites = plan.sites.filter((s) => may(reader, 'edit', { area: 'people', site: s.id }) || sight.sees('site', s));
  const count = new Map<string, number>();
  const lastOf = new Map<string, string>();
  for (const e of plan.extensions) {
    count.set(e.site, (count.get(e.site) ?? 0) + 1);
    if (e.kind === 'person' && e.digits > (lastOf.get(e.site) ?? '')) lastOf.set(e.site, e.digits);
  }
  const largest = [...sites].sort((a, b) => (count.get(b.id) ?? 0) - (count.get(a.id) ?? 0));
  const named_ = new Set([
    ...plan.inboundRoutes.flatMap((r) => r.numbers),
    ...plan.sites.flatMap((s) => s.mainNumber ?? []),
  ]);
  const numbers = grouped(sight.list('number'), (n) =>
    n.state === 'active' && n.activeFrom === null && !n.belongsTo && !named_.has(n.id) ? n.site : null,
  );
  return {
    canEdit: reader.role.grants.some((g) => g.right === 'edit' && (g.areas === 'all' || g.areas.includes('people'))),
    teams: named(sight.list('team')),
    people: options.person!,
    manyPeople: long.length > 0,
    account: reader.account,
    site: sites.find((s) => s.id === (asked.site ?? like?.site))?.id ?? largest[0]?.id ?? '',
    like: like
      ? {
          id: like.id,
          kind: like.kind,
          class: like.class,
          mailbox: like.mailbox !== null,
          ringSeconds: like.ringSeconds,
        }
      : null,
    classes: named(plan.classes),
    defaultClass:
      mostUsed(plan.extensions.filter((e) => e.kind === 'person').map((e) => e.class)) ?? plan.classes[0]?.id ?? '',
    sites: sites.map((s) => ({
      id: s.id,
      name: s.name,
      ranges: s.ranges.map((r) => `${r.from} to ${r.to}`).join(', '),
      free: freeAfterLast(plan, s.id, lastOf.get(s.id) ?? ''),
      numbers: (numbers.get(s.id) ?? []).slice(0, 200).map((n) => numberAt(n, s.country)),
    })),
  };
}

/** Free digits after the last person of a site first, since joiners are usually added in order; then the others. */
function freeAfterLast(plan: Plan, site: string, last: string): string[] {
  const all = freeDigits(plan, site, 1000);
  return [...all.filter((d) => d > last), ...all.filter((d) => d <= last)].slice(0, OFFERED);
}

function mostUsed(list: string[]): string | undefined {
  const counts = new Map<string, number>();
  for (const x of list) counts.set(x, (counts.get(x) ?? 0) + 1);
  return [...counts].sort((a, b) => b[1] - a[1])[0]?.[0];
}

/** The edits that add an extension with its person, mailbox and number; ids of what gets secrets. */
export function newExtensionEdits({ draft }: Given, { wanted }: By & { wanted: NewExtension }) {
  const { plan } = draft;
  const id = uuid();
  const person =
    wanted.makePerson && wanted.kind === 'person'
      ? {
          id: uuid(),
          name: wanted.name,
          email: wanted.mailbox?.email ?? null,
          site: wanted.site,
          teams: wanted.teams,
          language: wanted.language,
        }
      : null;
  const mailbox: Partial<Mailbox> | null = wanted.mailbox
    ? {
        id: uuid(),
        name: wanted.name,
        site: wanted.site,
        owners: person ? [person.id] : [],
        email: wanted.mailbox.email,
        attachSound: wanted.mailbox.attachSound,
        announceNumber: wanted.mailbox.announceNumber,
        announceTime: wanted.mailbox.announceTime,
      }
    : null;
  const { digits, name, kind, site, place, ringSeconds } = wanted;
  const phone = kind !== 'virtual';
  const extension: Partial<Extension> = {
    id,
    digits,
    name,
    kind,
    site,
    class: wanted.class,
    place,
    person: person?.id ?? null,
    mailbox: mailbox?.id ?? null,
    ...(phone ? { sipPassword: { version: 1 } } : {}),
    ...(ringSeconds === undefined ? {} : { ringSeconds }),
  };
  const edits: WholeEdit[] = [{ kind: 'extension', id, rowVersion: null, value: extension }];
  if (person) edits.push({ kind: 'person', id: person.id, rowVersion: null, value: person });
  if (mailbox) edits.push({ kind: 'mailbox', id: mailbox.id!, rowVersion: null, value: mailbox });
  if (wanted.number) {
    const number = plan.numbers.find((n) => n.id === wanted.number);
    if (!number) throw refusedNumber('no-such-object', 'There is no such number.');
    if (number.belongsTo) throw refusedNumber('taken', `${number.e164} belongs to somebody already.`);
    edits.push(...asEdits(draft, [{ kind: 'number', before: number, after: { ...number, belongsTo: id } }]));
  }
  return {
    id,
    phone,
    mailbox: mailbox?.id ?? null,
    pinLeastDigits: plan.organisation.pinLeastDigits,
    act: `added extension ${digits} ${name}`,
    edits: wanted.sameAs && person ? likeOther(plan, edits, person.id, wanted.sameAs) : edits,
  };
}

const refusedNumber = (code: string, sentence: string) =>
  new EditRefused(422, 'invalid', [{ code, path: 'number', sentence }]);

/** The edits with everything of another person copied into what they make. */
function likeOther(plan: Plan, edits: readonly WholeEdit[], person: string, other: string): WholeEdit[] {
  if (!plan.people.some((p) => p.id === other))
    throw new EditRefused(422, 'invalid', [
      { code: 'no-such-object', path: 'sameAs', sentence: 'There is no such person to be like.' },
    ]);
  const made = edits.map((e): Changed => {
    const parsed = KINDS[e.kind as ObjectKind].schema.safeParse(e.value);
    if (!parsed.success) throw new EditRefused(422, 'invalid', inputErrors(parsed.error));
    return { kind: e.kind, id: e.id, value: parsed.data as AnyObject };
  });
  const changes = planSameAs(planWith(plan, made), person, other, SAME_PARTS, uuid);
  const last = new Map(changes.map((c) => [(c.after ?? c.before)!.id, c]));
  const known = new Set(edits.map((e) => e.id));
  const value = (o: AnyObject | null) => o as unknown as Record<string, unknown> | null;
  return [
    ...edits.map((e) => (last.has(e.id) ? { ...e, value: value(last.get(e.id)!.after) } : e)),
    ...changes.flatMap((c): WholeEdit[] =>
      known.has((c.after ?? c.before)!.id)
        ? []
        : [{ kind: c.kind, id: (c.after ?? c.before)!.id, rowVersion: null, value: value(c.after) }],
    ),
  ];
}
