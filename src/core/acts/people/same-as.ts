import { z } from 'zod';
import {
  KINDS,
  RULED_KINDS,
  type AnyObject,
  type ClassOfService,
  type Extension,
  type ObjectKind,
  type Person,
  type Plan,
} from '../../plan';
import { SAME_PARTS, type SamePart } from './same-parts';

/* One person beside another: their rights, and making one the same as the other. */

export const sameLineSchema = z.strictObject({
  part: z.enum(SAME_PARTS),
  mine: z.string(),
  theirs: z.string(),
  same: z.boolean(),
});
export type SameLine = z.output<typeof sameLineSchema>;

export interface Changed {
  kind: ObjectKind;
  before: AnyObject | null;
  after: AnyObject | null;
}

/** The first extension of a person. */
export const extensionOf = (plan: Plan, person: string): Extension | null =>
  plan.extensions.find((e) => e.person === person) ?? null;

interface Both {
  person: Person;
  extension: Extension | null;
}
const both = (plan: Plan, id: string): Both | null => {
  const person = plan.people.find((p) => p.id === id);
  return person ? { person, extension: extensionOf(plan, id) } : null;
};

/** Two people part by part; null when one of them is missing. */
export function comparePeople(plan: Plan, mine: string, theirs: string): SameLine[] | null {
  const [a, b] = [both(plan, mine), both(plan, theirs)];
  if (!a || !b) return null;
  return SAME_PARTS.map((part) => {
    const [x, y] = [said(plan, a, part), said(plan, b, part)];
    return { part, mine: x, theirs: y, same: x === y };
  });
}

function said(plan: Plan, { person, extension: e }: Both, part: SamePart): string {
  const name = (list: readonly { id: string; name: string }[], id: string | null) =>
    list.find((o) => o.id === id)?.name ?? 'none';
  switch (part) {
    case 'class':
      return e ? name(plan.classes, e.class) : 'no extension';
    case 'teams':
      return (
        person.teams
          .map((t) => name(plan.teams, t))
          .sort()
          .join(', ') || 'none'
      );
    case 'outgoing':
      if (!e) return 'no extension';
      return e.withholdNumber
        ? 'withheld'
        : (plan.numbers.find((n) => n.id === e.outgoingNumber)?.e164 ?? 'the usual number');
    case 'ringing':
      return e ? `${e.ringSeconds} s` : 'no extension';
    case 'reachPlan': {
      const steps = plan.reachSteps.filter((s) => s.reachPlan === e?.reachPlan);
      if (!e?.reachPlan) return 'just rings, then the mailbox';
      return `${steps.length} ${steps.length === 1 ? 'step' : 'steps'}: ${steps.map((s) => (s.extension ? (s.extension === e.id ? 'own phone' : 'another phone') : 'outside phone')).join(', ')}`;
    }
    case 'mailbox': {
      const m = plan.mailboxes.find((x) => x.id === e?.mailbox);
      if (!m) return 'none';
      return [
        m.on ? 'on' : 'off',
        m.attachSound ? 'sound attached' : 'notice only',
        m.afterMail === 'delete' ? 'deleted after mail' : 'kept',
        `${m.mostMessages} messages`,
      ].join(', ');
    }
    case 'language':
      return person.language || 'the site’s';
    case 'presence': {
      const own = plan.presenceChoices.filter((c) => c.extension === e?.id);
      return (
        own
          .map((c) => `${name(plan.presenceRules, c.rule)}: ${c.internal}, outside ${c.outside}`)
          .sort()
          .join('; ') || 'the organisation’s'
      );
    }
  }
}

/** What has to be changed so that `mine` is like `theirs` in some parts. `makeId` gives ids for what is copied anew. */
export function planSameAs(
  plan: Plan,
  mine: string,
  theirs: string,
  parts: readonly SamePart[],
  makeId: () => string,
): Changed[] {
  const [a, b] = [both(plan, mine), both(plan, theirs)];
  if (!a || !b) return [];
  const out: Changed[] = [];
  let person: Person = a.person;
  let extension = a.extension;
  if (parts.includes('teams')) person = { ...person, teams: b.person.teams };
  if (parts.includes('language')) person = { ...person, language: b.person.language };
  if (extension && b.extension) {
    if (parts.includes('class')) extension = { ...extension, class: b.extension.class };
    if (parts.includes('ringing')) extension = { ...extension, ringSeconds: b.extension.ringSeconds };
    if (parts.includes('outgoing'))
      extension = {
        ...extension,
        outgoingNumber: b.extension.outgoingNumber,
        withholdNumber: b.extension.withholdNumber,
      };
    if (parts.includes('reachPlan')) extension = copyReachPlan(plan, extension, b.extension, makeId, out);
    if (parts.includes('mailbox')) copyMailbox(plan, extension, b.extension, out);
    if (parts.includes('presence')) copyPresence(plan, extension, b.extension, makeId, out);
    out.push({ kind: 'extension', before: a.extension, after: extension });
  }
  out.push({ kind: 'person', before: a.person, after: person });
  return out.filter((c) => JSON.stringify(c.before) !== JSON.stringify(c.after));
}

/** The other's reach plan as one of one's own: their phone becomes one's own phone, their mailbox one's own mailbox. */
function copyReachPlan(
  plan: Plan,
  mine: Extension,
  theirs: Extension,
  makeId: () => string,
  out: Changed[],
): Extension {
  const model = plan.reachPlans.find((r) => r.id === theirs.reachPlan);
  if (!model) return { ...mine, reachPlan: null };
  const id = makeId();
  const own = (ref: string | null) =>
    ref === theirs.id ? mine.id : ref !== null && ref === theirs.mailbox ? mine.mailbox : ref;
  out.push({
    kind: 'reachPlan',
    before: null,
    after: { ...model, id, name: mine.name, site: mine.site, digits: null, end: own(model.end) },
  });
  for (const step of plan.reachSteps.filter((s) => s.reachPlan === model.id))
    out.push({
      kind: 'reachStep',
      before: null,
      after: { ...step, id: makeId(), reachPlan: id, extension: own(step.extension) },
    });
  return { ...mine, reachPlan: id };
}

function copyMailbox(plan: Plan, mine: Extension, theirs: Extension, out: Changed[]): void {
  const [box, model] = [mine.mailbox, theirs.mailbox].map((id) => plan.mailboxes.find((m) => m.id === id));
  if (!box || !model) return;
  const settings = Object.fromEntries(
    KINDS.mailbox.sameAs!.map((f) => [f, (model as unknown as Record<string, unknown>)[f]]),
  );
  // Deleting after the mail needs an address; without one messages are kept.
  if (box.email === null && settings.afterMail === 'delete') settings.afterMail = 'keep';
  out.push({ kind: 'mailbox', before: box, after: { ...box, ...settings } as AnyObject });
}

function copyPresence(plan: Plan, mine: Extension, theirs: Extension, makeId: () => string, out: Changed[]): void {
  for (const c of plan.presenceChoices.filter((x) => x.extension === mine.id))
    out.push({ kind: 'presenceChoice', before: c, after: null });
  for (const c of plan.presenceChoices.filter((x) => x.extension === theirs.id))
    out.push({ kind: 'presenceChoice', before: null, after: { ...c, id: makeId(), extension: mine.id } });
}

/** One right of two people side by side. */
export const rightLineSchema = z.strictObject({
  what: z.string(),
  mine: z.string(),
  theirs: z.string(),
  same: z.boolean(),
});
export type RightLine = z.output<typeof rightLineSchema>;

/** The rights of two people kind by kind, with watching; a person without an extension has none. */
export function compareRights(plan: Plan, mine: string, theirs: string): RightLine[] {
  const classOf = (id: string) => plan.classes.find((c) => c.id === extensionOf(plan, id)?.class) ?? null;
  const [a, b] = [classOf(mine), classOf(theirs)];
  const line = (what: string, of: (c: ClassOfService) => string): RightLine => {
    const [x, y] = [a ? of(a) : 'no extension', b ? of(b) : 'no extension'];
    return { what, mine: x, theirs: y, same: x === y };
  };
  return [
    line('emergency', () => 'always'),
    ...RULED_KINDS.map((kind) =>
      line(kind.replaceAll('-', ' '), (c) => {
        const r = c.rights[kind];
        if (!r.allow && !r.forward) return 'no';
        return [r.allow ? (r.pin ? 'with PIN' : 'yes') : 'no', r.forward ? 'may be forwarded to' : '']
          .filter(Boolean)
          .join(', ');
      }),
    ),
    line('may watch', (c) => c.watch),
  ];
}
