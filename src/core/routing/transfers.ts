import { UNREACHABLE } from '../exchange/cause';
import type { Ending, Landing, Then } from '../exchange/answer';
import { digitsToDial, type Transfer } from '../exchange/situation';
import { ruleAt } from '../exchange/context';
import { answersWithin } from '../destinations/phone';
import { agentsOfQueue, type Extension } from '../plan';
import { contextOf } from './dialling';
import { emergencyCall } from './emergency';
import type { CameIn } from './leave-through';
import { internalRefused } from './inside';
import { leaveBy } from './outgoing';
import { ending, refTo, type Run } from './run';
import { walk } from './walk';

/* Transfers (ENGINE E15): a new call of the one who transfers, with their class, that carries the party transferred. */

/** Places that take a call by themselves: nothing comes back from there. */
const KEEPS: ReadonlySet<Landing['kind']> = new Set([
  'mailbox',
  'queue',
  'attendant',
  'announcement',
  'directory',
  'conference',
  'fax',
  'pageGroup',
]);

/** The two ends of a call that somebody took. */
interface Parties {
  /** the phone that called; null for a caller from outside */
  caller: Extension | null;
  cameIn: CameIn;
}

/** What becomes of a call that was taken, by the transfers of the situation in their order. */
export function transferred(run: Run, end: Ending, parties: Parties, landedAt: number): Ending {
  let now = end;
  let since = landedAt;
  for (const transfer of [...(run.situation.transfers ?? [])].sort((a, b) => a.atSeconds - b.atSeconds)) {
    const by = run.exchange.extensions.get(transfer.by)!;
    const party = now.outcome === 'routed' && transfer.atSeconds >= since ? partyOf(run, now, by, parties) : null;
    if (!party) {
      run.step('transfer', 'transfer-not-theirs', `${by.name} has no part in the call then: nothing is transferred.`, {
        object: refTo('extension', by),
      });
      continue;
    }
    run.atSeconds = transfer.atSeconds;
    // The caller goes on in the language spoken where the call was taken; whoever was called speaks that of their site.
    run.sentOn = party === parties.cameIn ? run.atLanding : { language: '', keysUsed: run.atLanding.keysUsed };
    Object.assign(run, run.sentOn);
    now = sendOn(run, now, transfer, by, party);
    since = transfer.atSeconds;
    parties = { caller: party.phone, cameIn: party };
  }
  return now;
}

/** Who is sent on when an extension transfers: the caller by whoever took the call, or that one by the caller. */
function partyOf(run: Run, { lands, trunk }: Ending, by: Extension, { caller, cameIn }: Parties): CameIn | null {
  if (!lands) return null;
  if (caller?.id === by.id) {
    if (lands.kind === 'outside') {
      const out = trunk ? run.exchange.trunks.get(trunk)! : null;
      return out && { trunk: out, calling: null, phone: null, site: out.site };
    }
    const phone = lands.id === null ? undefined : run.exchange.extensions.get(lands.id);
    return phone ? { trunk: null, calling: null, phone, site: phone.site } : null;
  }
  return takenBy(run, lands, by) ? cameIn : null;
}

/** Whether an extension can be the one who took a call: its phone, a member of the group, an agent of the queue. */
function takenBy({ exchange }: Run, { kind, id }: Landing, by: Extension): boolean {
  if (kind === 'extension') return id === by.id;
  const object = id === null ? undefined : exchange.destinations.get(id)?.object;
  if (kind === 'ringGroup') return object !== undefined && 'members' in object && object.members.includes(by.id);
  if (kind !== 'queue' || !object || !('agents' in object)) return false;
  return agentsOfQueue(object).includes(by.id);
}

function sendOn(run: Run, before: Ending, transfer: Transfer, by: Extension, party: CameIn): Ending {
  const what = transfer.kind === 'blind' ? 'sends the call on' : 'asks first, then sends the call on';
  const to = run.exchange.destinations.get(transfer.to)?.object.name ?? transfer.to;
  run.step('transfer', 'transfer', `${by.name} ${what} to ${to}.`, {
    object: refTo('extension', by),
    out: transfer.to,
  });
  run.landed = true;
  const next = newCall(run, transfer, by, party);
  const recall = recallSeconds(run, party);
  const due = transfer.atSeconds + recall;
  const lands = next.outcome === 'routed' ? next.lands : null;
  const kept = { ...next, kind: next.kind ?? before.kind };
  if (lands && KEEPS.has(lands.kind)) return kept;
  if (lands && (lands.id === null || answersWithin(run, lands.id, recall)))
    return { ...kept, then: unanswered(run, next.then, by, party, due) };
  // Nobody takes it: it comes back at once where it failed, else when its time is over.
  run.atSeconds = lands ? due : transfer.atSeconds;
  run.step('transfer', 'recall', `Nobody takes it: the call comes back to ${by.name}.`, {
    object: refTo('extension', by),
  });
  Object.assign(run, run.sentOn);
  return { ...walk(run, { type: 'destination', id: by.id }, party), kind: before.kind, rule: before.rule };
}

/** The new call of the one who transfers. */
function newCall(run: Run, { to }: Transfer, by: Extension, party: CameIn): Ending {
  const refused = ending({ outcome: 'failed', cause: UNREACHABLE });
  if (!digitsToDial.safeParse(to).success)
    return internalRefused(run, by, null) ?? walk(run, { type: 'destination', id: to }, party);
  const context = contextOf(run.exchange, by, { at: run.now, situation: run.situation });
  const rule = ruleAt(context, to);
  if (!rule) return refused;
  if (rule.type === 'emergency') return party.trunk ? refused : emergencyCall(run, rule, by, context.site);
  if (rule.type === 'service')
    return rule.code.service === 'park' && rule.code.parkPlace
      ? walk(run, { type: 'destination', id: rule.code.parkPlace }, party)
      : refused;
  if (rule.type === 'destination')
    return internalRefused(run, by, null) ?? walk(run, { type: 'destination', id: rule.id }, party);
  const outside = party.trunk !== null;
  return leaveBy(
    run,
    rule.compiled,
    to,
    {
      owner: by,
      caller: by,
      fromSite: by.site,
      rights: [{ class: by.class, who: by.name, right: outside ? 'transfer' : 'allow', asksPin: !outside }],
      diverted: false,
      showsCaller: false,
      original: null,
      entered: party.trunk,
      transit: outside,
    },
    by.site,
  );
}

const recallSeconds = (run: Run, { trunk }: CameIn): number =>
  trunk?.recallSeconds ?? run.exchange.plan.organisation.recallSeconds;

/** What follows while nobody takes a transferred call: its own ways, until it comes back or something keeps it. */
function unanswered(run: Run, then: readonly Then[], by: Extension, party: CameIn, due: number): Then[] {
  const out: Then[] = [];
  for (const t of then) {
    if (t.afterSeconds >= due) break;
    if (t.lands.kind === 'tone' && t.lands.id === null) return [...out, ...comesBack(run, by, party, t.afterSeconds)];
    out.push(t);
    if (KEEPS.has(t.lands.kind)) return out;
  }
  return [...out, ...comesBack(run, by, party, due)];
}

/** It rings where it was sent from, then goes on as that one's unanswered calls do. */
function comesBack(run: Run, by: Extension, party: CameIn, at: number): Then[] {
  const aside = run.aside();
  aside.atSeconds = at;
  Object.assign(aside, run.sentOn);
  const back = walk(aside, { type: 'destination', id: by.id }, party);
  const first: Landing = back.lands ?? {
    kind: 'tone',
    id: null,
    digits: null,
    label: `released, cause ${back.cause!.q850}`,
  };
  return [{ when: 'recall', afterSeconds: at, lands: first }, ...back.then];
}
