import { dialTo } from '@/core/ask';
import { CALL_KIND_WORDS, showNumber, type CallKind } from '@/core/numbers';
import {
  agentsOfQueue,
  type DayOrder,
  type Extension,
  type Mailbox,
  type Person,
  type PresenceRule,
} from '@/core/plan';
import { mayWatch, trace, type OwnReach, type Situation } from '@/core/routing';
import type { OwnReachInput, OwnStep, OwnStepSaid } from '@/contract/own';
import { EditRefused } from '../../access/rights';
import { sightIn, type By, type Given } from '../ground/question';

/* What a person has in live: their page and what they set there are of that, since it acts at once. */

/** Kinds of call that the organisation pays for. */
const PAID: ReadonlySet<CallKind> = new Set([
  'local',
  'national',
  'mobile',
  'shared-cost',
  'premium',
  'international',
  'satellite',
]);

/** A person who is live with their phones and mailboxes; null when there is none any more. */
export function ownFacts({ live }: Given, { person }: { person: string }) {
  const { plan } = live;
  const found = plan.people.find((p) => p.id === person);
  if (!found) return null;
  const site = plan.sites.find((s) => s.id === found.site)!;
  return {
    person: found as Person,
    zone: site.zone,
    country: site.country,
    language: found.language || site.language,
    organisation: plan.organisation.name,
    pinLeastDigits: plan.organisation.pinLeastDigits,
    extensions: plan.extensions.filter((e) => e.person === person) as Extension[],
    mailboxes: plan.mailboxes.filter((m) => m.owners.includes(person)) as Mailbox[],
    states: plan.presenceRules as PresenceRule[],
  };
}

/** How the organisation writes its dates. */
export const dayOrder = ({ live }: Given, _: object): DayOrder => live.plan.organisation.dayOrder;

/** What the page of a person shows beside it: numbers, the reach plan of the plan, and colleagues whom they may watch. */
export function ownPage(
  given: Given,
  { person, situation, now }: { person: string; situation: Situation; now: number },
) {
  const facts = ownFacts(given, { person });
  if (!facts) return null;
  const { plan } = given.live;
  const x = given.live.exchange();
  const nameOf = (id: string | null) =>
    id === null ? null : (x.destinations.get(id)?.object.name ?? x.extensions.get(id)?.name ?? null);
  const stateName = (id: string) => plan.presenceRules.find((r) => r.id === id || r.activity === id)?.name ?? null;
  const phones = facts.extensions.map((e) => ({
    id: e.id,
    digits: e.digits,
    name: e.name,
    ringSeconds: e.ringSeconds,
    mailbox: e.mailbox,
    numbers: (x.numberOf.get(e.id) ?? []).map((n) => showNumber(n.e164, facts.country)),
    planned: e.reachPlan
      ? {
          name: nameOf(e.reachPlan)!,
          steps: (x.reachSteps.get(e.reachPlan) ?? []).map((s) => ({
            label: nameOf(s.extension ?? s.outside) ?? '?',
            together: s.withPrevious,
            seconds: s.seconds,
            outside: s.outside !== null,
          })),
          end: nameOf(plan.reachPlans.find((r) => r.id === e.reachPlan)!.end),
        }
      : null,
    ends: endsOf(given, e, situation, now),
    agentOf: plan.queues
      .filter((q) => agentsOfQueue(q).includes(e.id))
      .map((q) => ({ name: q.name, permanent: q.permanentAgents.includes(e.id) })),
  }));
  const [first] = facts.extensions;
  const watched = first
    ? plan.extensions
        .filter((e) => e.person !== null && e.person !== person && mayWatch(x, first, e).may)
        .map((e) => ({ person: e.person!, name: e.name, digits: e.digits }))
        .slice(0, MOST_WATCHED)
    : [];
  return {
    ...facts,
    phones,
    watched: watched.map((w) => ({
      ...w,
      state: situation.presence?.[w.person] ? stateName(situation.presence[w.person]!) : null,
    })),
  };
}

const MOST_WATCHED = 200;

/** Where calls from colleagues end now, when nobody picks up: step by step, in words. */
function endsOf({ live }: Given, extension: Extension, situation: Situation, now: number): string[] {
  const x = live.exchange();
  const by = live.plan.extensions.find(
    (e) => e.id !== extension.id && e.site === extension.site && e.kind === 'person',
  );
  if (!by) return [];
  const call = { from: { type: 'extension' as const, id: by.id }, dial: extension.digits, enBloc: true, at: now };
  const t = trace(x, call, situation);
  const words = (l: { kind: string; label: string } | null | undefined) =>
    l ? (l.kind === 'mailbox' ? `mailbox ${l.label}` : l.label) : null;
  return [words(t.lands), ...t.then.map((s) => words(s.lands))].filter((l): l is string => l !== null).slice(0, 8);
}

/**
 * A person's own reach plan as the exchange takes it, with what is to be known of each step; refused with the step that can't
 * ring.
 */
export function ownReachRead(
  { live }: Given,
  { extension, plan, now }: { extension: string; plan: OwnReachInput; now: number },
): { reach: Omit<OwnReach, 'extension'>; said: OwnStepSaid[] } {
  const x = live.exchange();
  const owner = x.extensions.get(extension)!;
  const country = x.sites.get(owner.site)!.country;
  const wrong: { code: string; path: string; sentence: string }[] = [];
  const read = plan.steps.map((step, i) => {
    const to = dialTo(x, owner, step.rings, now);
    if (to.type === 'refused') wrong.push({ code: 'no-phone', path: `plan.steps.${i}.rings`, sentence: to.sentence });
    return { step, to };
  });
  if (wrong.length > 0) throw new EditRefused(422, 'no-phone', wrong);
  const own = live.plan.numbers;
  const said = read.map(({ step, to }, i): OwnStepSaid => {
    if (to.type === 'extension') {
      const again = read.findIndex((r) => r.to.type === 'extension' && r.to.id === to.id) < i;
      return { label: to.label, outside: false, notes: again ? ['It rings in an earlier step already.'] : [] };
    }
    if (to.type === 'refused') return { label: step.rings, outside: false, notes: [to.sentence] };
    const back = own.find((n) => n.e164 === to.e164);
    return {
      label: showNumber(to.e164, country),
      outside: true,
      notes: [
        ...(back ? ['This is a number of ours: the call would come back here. Ring the extension instead.'] : []),
        ...(to.barred ? [`It does not ring: ${to.barred}`] : []),
        ...(PAID.has(to.kind)
          ? [`Each call there is a ${CALL_KIND_WORDS[to.kind]} call that the organisation pays for.`]
          : []),
        ...(step.keyToTake ? [] : ['Without a key to take the call, its own mailbox may swallow it.']),
      ],
    };
  });
  return {
    said,
    reach: {
      showsCaller: plan.showsCaller,
      steps: read.map(({ step, to }) => ({
        ...ringing(step),
        ...(to.type === 'extension' ? { extension: to.id } : { dial: to.type === 'outside' ? to.dial : step.rings }),
      })),
    },
  };
}

/** Where a person forwards to, as their phone dials it; refused with what is wrong with it. */
export function ownForwardingTo(
  { live }: Given,
  { extension, to, now }: { extension: string; to: string; now: number },
): { dial: string; label: string } {
  const x = live.exchange();
  const owner = x.extensions.get(extension)!;
  const found = dialTo(x, owner, to, now);
  const no = (sentence: string) => new EditRefused(422, 'no-phone', [{ code: 'no-phone', path: 'to', sentence }]);
  if (found.type === 'refused') throw no(found.sentence);
  if (found.type === 'extension') {
    if (found.id === extension) throw no('That is this extension itself: a call would go round in a circle.');
    return { dial: x.extensions.get(found.id)!.digits, label: found.label };
  }
  if (found.barred) throw no(`Nobody would be reached there: ${found.barred}`);
  return { dial: found.dial, label: showNumber(found.e164, x.sites.get(owner.site)!.country) };
}

const ringing = ({ together, seconds, keyToTake }: OwnStep) => ({ withPrevious: together, seconds, keyToTake });

/** What a person's own reach plan is called on their page: phones by name, numbers as people write them. */
export function ownReachWords({ live }: Given, { reach }: { reach: OwnReach }) {
  const x = live.exchange();
  return reach.steps.map((s) => ({
    rings: s.extension ? (x.extensions.get(s.extension)?.digits ?? '?') : s.dial!,
    label: s.extension ? (x.extensions.get(s.extension)?.name ?? 'a phone that is gone') : s.dial!,
    together: s.withPrevious ?? false,
    seconds: s.seconds,
    keyToTake: s.keyToTake ?? true,
  }));
}

/** The same for somebody who looks after them, as far as they may see the phones. */
export const ownReachTold = (given: Given, { reach, reader }: By & { reach: OwnReach }) =>
  sightIn(given.live, reader).cut(ownReachWords(given, { reach }));

/** People whose mail can bring them to a page of their own; null when there is none such. */
export function invited(given: Given, { person }: { person: string }) {
  const facts = ownFacts(given, { person });
  return (
    facts && {
      name: facts.person.name,
      email: facts.person.email,
      zone: facts.zone,
      language: facts.language,
      organisation: facts.organisation,
      where: { area: 'people' as const, site: facts.person.site },
    }
  );
}
