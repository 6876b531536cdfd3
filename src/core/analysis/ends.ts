import { cycles } from '../course';
import { BEHAVIOURS, type Behaviour, type CourseWayOn } from '../destinations';
import { whyNot } from '../digits';
import { DAYS, DAY_MINUTES, clockTime, faultsOf } from '../hours';
import { agentsOfQueue, type Extension, type Mailbox, type ObjectKind, type ObjectOf } from '../plan';
import { kbitPerCall, spokenBetween, type Exchange } from '../routing';
import { attendantProblems } from './attendants';
import { at, type Problem } from './problem';
import { remembered } from './remembered';

/** What is wrong or doubtful with hours, and with the places that calls are led to (ENGINE E14). */
export function endProblems(exchange: Exchange): Problem[] {
  return [
    ...hours(exchange),
    ...attendantProblems(exchange),
    ...groups(exchange),
    ...circles(exchange),
    ...links(exchange),
  ];
}

type Place = ReturnType<Exchange['destinations']['get']> & object;

const weekFaults = remembered(
  ({ plan }) => plan.hours,
  () => [],
  (object: ObjectOf['hours'], exchange) => faultsOf(exchange.hours.get(object.id)!.hours.week),
);

function hours(exchange: Exchange): Problem[] {
  const faults = weekFaults(exchange);
  return exchange.plan.hours.flatMap((object, nth) =>
    faults[nth]!.map((fault): Problem => {
      const of = (from: number, to: number) =>
        `${DAYS[fault.day]} ${clockTime(from)} to ${clockTime(to > DAY_MINUTES ? to - DAY_MINUTES : to)}`;
      const times = of(fault.from, fault.to);
      const doubt = (type: string, sentence: string, mend: string): Problem => ({
        type,
        severity: 'doubt',
        object: at('hours', object),
        sentence,
        mend,
      });
      switch (fault.type) {
        case 'hole':
          return doubt(
            'hours-hole',
            `${object.name} has a hole: closed on ${times}, between two open times.`,
            'Close the hole, or leave it when it is meant.',
          );
        case 'overlap':
          return { ...doubt('hours-overlap', `${object.name} says ${times} twice.`, 'Say it once.'), severity: 'note' };
        case 'minute':
          return {
            ...doubt(
              'hours-minute',
              `${object.name} is closed in the last minute of ${DAYS[fault.day]}, ${times}.`,
              'Let it end a minute later.',
            ),
            severity: 'note',
          };
        case 'half-day':
          return doubt(
            'hours-half-day',
            `${object.name} is open on ${times}: half a day off, it seems.`,
            `Make it ${of(fault.meant.from, fault.meant.to)}, or leave it when it is meant.`,
          );
      }
    }),
  );
}

function groups(exchange: Exchange): Problem[] {
  const { plan } = exchange;
  const empty = (kind: ObjectKind, object: { id: string; name: string }, sentence: string, mend: string): Problem => ({
    type: `${kind === 'queue' ? 'queue' : kind === 'reachPlan' ? 'reach-plan' : 'group'}-nobody`,
    severity: 'error',
    object: at(kind, object as never),
    sentence,
    mend,
  });
  return [
    ...plan.queues
      .filter((q) => agentsOfQueue(q).length === 0)
      .map((q) => empty('queue', q, `${q.name} has no agents: nobody ever answers.`, 'Name its agents.')),
    ...plan.ringGroups
      .filter((g) => g.outside.length === 0 && g.members.every((m) => exchange.extensions.get(m)!.kind === 'virtual'))
      .map((g) => empty('ringGroup', g, `${g.name} has no member with a phone.`, 'Name its members.')),
    ...plan.reachPlans
      .filter((r) => !exchange.reachSteps.has(r.id))
      .map((r) => empty('reachPlan', r, `${r.name} has no steps: nobody is looked for.`, 'Add a step.')),
    ...plan.outsideNumbers.flatMap((o): Problem[] => {
      const ladder = exchange.sites.get(o.site)!.ladder;
      const rungs = (ladder && exchange.rungsOf.get(ladder)) || [];
      if (rungs.some((r) => whyNot(r.map.automaton, o.dial) === null)) return [];
      const sentence = `${o.name} dials ${o.dial}, which no outbound rule of ${exchange.sites.get(o.site)!.name} takes.`;
      return [
        {
          type: 'outside-nowhere',
          severity: 'error',
          object: at('outsideNumber', o),
          sentence,
          mend: 'Dial it as a phone there would.',
        },
      ];
    }),
  ];
}

type Led = { from: string; to: string; drive: CourseWayOn['drive'] };

/** Where a place leads calls by itself. */
function edgesOf({ kind, object }: Place, exchange: Exchange): Led[] {
  const behaviour = BEHAVIOURS[kind] as Behaviour<typeof object>;
  const { id } = object;
  const parts = kind === 'reachPlan' ? Math.max(1, exchange.reachSteps.get(id)?.length ?? 0) : 1;
  const out = new Map<string, Led>();
  for (let part = 0; part < parts; part++)
    for (const { to, drive } of behaviour.ways(object, exchange, part, null, 'anybody'))
      if (to.type === 'destination' && drive !== 'caller' && drive !== 'wait' && !(to.id === id && to.part))
        out.set(`${to.id} ${drive}`, { from: id, to: to.id, drive });
  return [...out.values()];
}

/** Of the two kinds of which there are as many as people: extensions ask for presence and mailboxes, mailboxes for nothing. */
const edgesOfExtensions = remembered(
  ({ plan }) => plan.extensions,
  ({ plan, presenceChoices }) => [plan.presenceRules, presenceChoices, plan.organisation, plan.mailboxes],
  (object: Extension, exchange) => edgesOf({ kind: 'extension', object }, exchange),
);
const edgesOfMailboxes = remembered(
  ({ plan }) => plan.mailboxes,
  () => [],
  (object: Mailbox, exchange) => edgesOf({ kind: 'mailbox', object }, exchange),
);

/** Places that lead round to themselves, found over everything that calls can be led to. */
function circles(exchange: Exchange): Problem[] {
  const others = edgesOfMailboxes(exchange).flat();
  for (const place of exchange.destinations.values())
    if (place.kind !== 'extension' && place.kind !== 'mailbox') others.push(...edgesOf(place, exchange));
  // What leads nowhere on is in no circle: most extensions lead to a mailbox and no further.
  const leads = new Set(others.map((e) => e.from));
  const mayLead = (e: Led) => leads.has(e.to) || exchange.extensions.has(e.to);
  const onward = others.filter(mayLead);
  for (const list of edgesOfExtensions(exchange)) for (const edge of list) if (mayLead(edge)) onward.push(edge);
  const nodes = [...new Set(onward.flatMap((e) => [e.from, e.to]))];
  return cycles(nodes, onward).map(({ type, nodes: list }) => {
    const first = exchange.destinations.get(list[0]!)!;
    const names = list.map((id) => exchange.destinations.get(id)!.object.name).join(' → ');
    return {
      type,
      severity: type === 'loop' ? 'error' : 'doubt',
      object: at(first.kind, first.object),
      sentence:
        type === 'loop'
          ? `Calls go round without end: ${names} and back.`
          : `Calls that nobody answers go round, ringing: ${names} and back, until 20 hops are over.`,
      mend: 'Lead one of them elsewhere.',
    };
  });
}

/** A link budget under one call lets nobody through. */
function links(exchange: Exchange): Problem[] {
  const { sites } = exchange.plan;
  return sites.flatMap((site): Problem[] => {
    if (site.linkKbitPerSecond === null) return [];
    const needs = sites
      .filter((s) => s.id !== site.id)
      .map((s) => kbitPerCall(exchange, site.id, spokenBetween(exchange, site.id, s.id)!) ?? 0);
    const most = Math.max(0, ...needs);
    if (most <= site.linkKbitPerSecond) return [];
    return [
      {
        type: 'link-budget',
        severity: 'error',
        object: at('site', site),
        sentence: `The link of ${site.name} has ${site.linkKbitPerSecond} kbit/s; one call takes ${most.toFixed(1)}: none gets through.`,
        mend: 'Raise the budget, or agree on a thinner codec for the pair of sites.',
      },
    ];
  });
}
