import { v7 as uuid } from 'uuid';
import { comparePeople, compareRights, planSameAs } from '@/core/acts/people';
import { landingTimes } from '@/core/analysis';
import type { SameAsInput } from '@/contract/people';

import { spacedNumber } from '@/core/numbers';
import type { Situation } from '@/core/routing';
import { Refused, may } from '../../access/rights';
import { byLabel, optionsFor } from '../ground/options';
import { sightIn, type By, type Given } from '../ground/question';
import { objectPage } from './objects';
import { asEdits } from '../ground/as-edits';
import { personIn } from '../ground/person-in';

/* People: what their pages show, and how two of them differ. */

/** Everything of one person: each extension and mailbox with its own page data, numbers, presence, reach plan. */
export function personPage(
  given: Given,
  { id, now, situation, reader }: By & { id: string; now: number; situation: Situation },
) {
  const data = objectPage(given, { kind: 'person', id, reader });
  if (!data) return null;
  const { draft } = given;
  const { plan } = draft;
  const x = draft.exchange();
  const sight = sightIn(draft, reader);
  const nameOf = (target: string | null) =>
    target === null ? null : (x.destinations.get(target)?.object.name ?? x.extensions.get(target)?.name ?? target);
  const mine = plan.extensions.filter((e) => e.person === id && sight.sees('extension', e));
  const extensions = mine.map((e) => {
    const numbers = plan.numbers.filter((n) => n.belongsTo === e.id && sight.sees('number', n));
    // Of several the one that takes calls says where they end.
    const taking = numbers.find((n) => n.state === 'active') ?? numbers[0];
    const steps = (e.reachPlan ? (x.reachSteps.get(e.reachPlan) ?? []) : []).map((s) => ({
      rings: nameOf(s.extension ?? s.outside)!,
      outside: s.outside !== null,
      together: s.withPrevious,
      seconds: s.seconds,
    }));
    return {
      data: objectPage(given, { kind: 'extension', id: e.id, reader })!,
      numbers: numbers.map((n) => ({ id: n.id, e164: spacedNumber(n.e164), state: n.state })),
      lands: taking ? landingTimes(x, taking.e164, now, situation) : [],
      reach: e.reachPlan
        ? { name: nameOf(e.reachPlan)!, steps, end: nameOf(plan.reachPlans.find((r) => r.id === e.reachPlan)!.end) }
        : null,
      presence: plan.presenceRules.map((rule) => {
        const own = (x.presenceChoices.get(e.id) ?? []).find((c) => c.rule === rule.id) ?? null;
        return {
          rule: rule.id,
          name: rule.name,
          usual: {
            internal: rule.internal,
            internalTo: nameOf(rule.internalTo),
            outside: rule.outside,
            outsideTo: nameOf(rule.outsideTo),
          },
          own: own && { ...own, rowVersion: draft.rowVersions.of('presenceChoice', own.id)! },
        };
      }),
      mailbox: e.mailbox ? objectPage(given, { kind: 'mailbox', id: e.mailbox, reader }) : null,
    };
  });
  const { options, long } = optionsFor(sight, ['destination']);
  return sight.cut({
    data,
    extensions,
    destinations: options.destination ?? [],
    manyDestinations: long.length > 0,
  });
}

/** An extension's own numbers beside its page. */
export function extensionPage(given: Given, { id, reader }: By & { id: string }) {
  const data = objectPage(given, { kind: 'extension', id, reader });
  if (!data) return null;
  const sight = sightIn(given.draft, reader);
  const numbers = (given.draft.exchange().numberOf.get(id) ?? []).filter((n) => sight.sees('number', n));
  return { data, numbers: numbers.map((n) => ({ id: n.id, e164: spacedNumber(n.e164) })) };
}

/** One team with its people. */
export function teamPage(given: Given, { id, reader }: By & { id: string }) {
  const data = objectPage(given, { kind: 'team', id, reader });
  if (!data) return null;
  const { plan } = given.draft;
  const sight = sightIn(given.draft, reader);
  const siteNames = new Map(plan.sites.map((s) => [s.id, s.name]));
  const digits = new Map<string, string>();
  for (const e of plan.extensions) if (e.person && !digits.has(e.person)) digits.set(e.person, e.digits);
  const { options, long } = optionsFor(sight, ['person']);
  return {
    data,
    people: options.person!,
    many: long.length > 0,
    mayEditPeople: may(reader, 'edit', { area: 'people', site: null }) || may(reader, 'edit'),
    members: sight
      .list('person')
      .filter((p) => p.teams.includes(id))
      .map((p) => ({ id: p.id, label: p.name, site: siteNames.get(p.site)!, digits: digits.get(p.id) ?? '' }))
      .sort(byLabel)
      .map(({ label, ...p }) => ({ ...p, name: label })),
  };
}
/** Two people side by side: what can be copied, and their rights kind by kind. */
export function peopleComparison({ draft }: Given, { id, other, reader }: By & { id: string; other: string }) {
  const person = personIn(draft, reader, id, 'look');
  const second = personIn(draft, reader, other, 'look');
  return sightIn(draft, reader).cut({
    mine: person.name,
    theirs: second.name,
    parts: comparePeople(draft.plan, id, other)!,
    rights: compareRights(draft.plan, id, other),
  });
}

export function sameAsPage(given: Given, { id, asked, reader }: By & { id: string; asked: string | undefined }) {
  const { draft } = given;
  const sight = sightIn(draft, reader);
  const person = draft.plan.people.find((p) => p.id === id);
  if (!person || !sight.sees('person', person)) return null;
  const beside = asked ? sight.list('person').find((p) => p.id === asked) : undefined;
  const { options, long } = optionsFor(sight, ['person']);
  return {
    id,
    name: person.name,
    people: options.person!.filter((o) => o.id !== id),
    many: long.length > 0,
    canEdit: may(reader, 'edit', { area: 'people', site: person.site }),
    other: beside?.id ?? null,
    comparison: beside ? peopleComparison(given, { id, other: beside.id, reader }) : null,
  };
}

/** The edits that make a person like another in some parts. */
export function sameAsEdits({ draft }: Given, { id, input, reader }: By & { id: string; input: SameAsInput }) {
  const person = personIn(draft, reader, id, 'edit');
  const other = personIn(draft, reader, input.other, 'look');
  const changes = planSameAs(draft.plan, id, input.other, input.parts, uuid);
  if (changes.length === 0) throw new Refused(409, 'nothing-to-do', 'They are the same in these already.');
  return { edits: asEdits(draft, changes), act: `made ${person.name} the same as ${other.name}` };
}
