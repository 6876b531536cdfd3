import { CALL_KIND_WORDS, kindFrom, readDigits, writeNumber, type CallKind, type OutsideNumber } from '../numbers';
import type { Ending } from '../exchange/answer';
import { isListed } from '../exchange/exchange';
import type { CompiledRung } from '../exchange/rung';
import { shownOn } from './caller-id';
import { REFUSED, UNALLOCATED } from '../exchange/cause';
import type { Caller, Leg, LegRight } from './leg';
import { ending, refTo, type Run } from './run';
import { chooseTrunk } from './trunks';

/** A call that leaves by a rule of a ladder: read, check the rights, choose a trunk, write, show (ENGINE E5-E8). */
export function leaveBy(run: Run, { rung }: CompiledRung, digits: string, leg: Leg, siteId: string): Ending {
  const base = { rule: rung.id };
  const object = refTo('rung', rung);
  if (isRefused(run, leg.caller, rung)) {
    const whom = leg.entered ? 'outside callers' : 'whoever calls here';
    run.step('rule', 'rung-refuses', `${rung.name} is not for ${whom}; the search ends here.`, { object });
    return ending({ ...base, outcome: 'refused', cause: REFUSED });
  }
  const place = run.exchange.places.get(siteId)!;
  const rest = (rung.prepend ?? '') + digits.slice(rung.strip);
  const number = readDigits(rest, rung.reading, place);
  const kind = kindFrom(number, place);
  const e164 = number.valid ? number.e164 : null;
  if (kind === 'emergency' && leg.entered) {
    run.step('right', 'forward-refused', `${rest} is an emergency number, which no outside caller is led to.`, {
      object,
    });
    return ending({ ...base, outcome: 'refused', kind, cause: REFUSED });
  }
  if (!number.valid && !rung.asDialled) {
    run.step('number', 'number-invalid', `${rest} can't be called: ${number.why}.`, { object, in: digits, out: rest });
    return ending({ ...base, outcome: 'unroutable', kind, cause: UNALLOCATED });
  }
  if (run.told) sayNumber(run, number, digits, rest, kind);
  if (isForbidden(run, leg.rights, kind)) return ending({ ...base, outcome: 'refused', kind, e164, cause: REFUSED });
  const choice = chooseTrunk(run, rung.trunks, {
    cameBy: leg.entered,
    fromSite: leg.fromSite,
    transit: leg.transit,
    emergency: false,
  });
  if ('ended' in choice) return ending({ ...base, outcome: 'failed', kind, e164, cause: choice.ended });
  const { trunk } = choice;
  const at = run.exchange.places.get(trunk.site)!;
  const digitsSent =
    (trunk.carrierPrefix ?? '') + (number.valid ? writeNumber(number, trunk.writes, at.country, at.area) : rest);
  const shown = shownOn(run, leg, rung, trunk);
  if (run.told)
    run.step('end', 'call-ends', `${trunk.name} is sent ${digitsSent}.`, {
      object: refTo('trunk', trunk),
      in: rest,
      out: digitsSent,
    });
  // Copying parts by name: this is done for every call that leaves, millions of times in an analysis.
  return ending({
    rule: rung.id,
    shownNumber: shown.shownNumber,
    asserted: shown.asserted,
    divertedBy: shown.divertedBy,
    outcome: 'routed',
    lands: {
      kind: 'outside',
      id: trunk.id,
      digits: digitsSent,
      label: `${e164 ?? digitsSent} through ${trunk.name}`,
    },
    kind,
    trunk: trunk.id,
    digitsSent,
    e164,
  });
}

function isRefused(run: Run, caller: Caller, rung: CompiledRung['rung']): boolean {
  const lists = { forPeople: rung.notForPeople, forTeams: rung.notForTeams, forSites: rung.notForSites };
  return isListed(run.exchange, lists, caller);
}

function sayNumber(run: Run, number: OutsideNumber, digits: string, rest: string, kind: CallKind): void {
  if (!number.valid) {
    run.step('number', 'number-as-dialled', `${number.why}; it is sent as dialled.`, { in: digits, out: rest });
    return;
  }
  const seen = kind === 'international' && number.type !== 'unknown' ? `, ${number.type} in ${number.country}` : '';
  run.step('number', 'number-read', `Read as ${number.e164 ?? number.significant}: ${CALL_KIND_WORDS[kind]}${seen}.`, {
    in: digits,
    out: number.e164 ?? number.significant,
  });
}

/** Whether a class forbids this kind of call to one of those who must be allowed it (ENGINE E6); leaves a step for each. */
function isForbidden(run: Run, rights: readonly LegRight[], kind: CallKind): boolean {
  return kind !== 'emergency' && rights.some((needed) => lacks(run, needed, kind));
}

function lacks(run: Run, { class: id, who, right, asksPin }: LegRight, kind: CallKind): boolean {
  const cos = run.exchange.classes.get(id)!;
  if (kind === 'emergency') return false;
  const rights = cos.rights[kind];
  const object = refTo('class', cos);
  const words = CALL_KIND_WORDS[kind];
  if (!rights[right]) {
    const what = { allow: 'call', forward: 'forward to', transfer: 'transfer to' }[right];
    const code = ({ allow: 'class-refuses', forward: 'forward-refused', transfer: 'transfer-refused' } as const)[right];
    run.step('right', code, `Class ${cos.name} does not let ${who} ${what} ${words} numbers.`, { object });
    return true;
  }
  if (right !== 'allow') return false;
  if (!rights.pin || !asksPin) {
    run.step('right', 'class-allows', `Class ${cos.name} allows ${words} calls.`, { object });
    return false;
  }
  if (run.situation.pin === undefined) {
    run.step('right', 'pin-missing', `Class ${cos.name} asks for a PIN for ${words} calls; none was entered.`, {
      object,
    });
    return true;
  }
  run.step('right', 'pin-given', `Class ${cos.name} allows ${words} calls with a PIN; it was entered.`, { object });
  return false;
}
