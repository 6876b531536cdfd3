import { CALL_KIND_WORDS, kindFrom, readDigits, writeNumber, type CallKind, type OutsideNumber } from '../numbers';
import { isListed } from '../exchange/exchange';
import type { CompiledRung } from '../exchange/rung';
import { shownNumber, type Leg } from './caller-id';
import { REFUSED, UNALLOCATED } from '../exchange/cause';
import { ending, refTo, type Ending, type Run } from './run';
import { chooseTrunk } from './trunks';

/** A call that leaves by a rule of a ladder: read, check the class, choose a trunk, write, show (ENGINE E5-E8). */
export function leaveBy(run: Run, { rung }: CompiledRung, digits: string, leg: Leg, siteId: string): Ending {
  const base = { rule: rung.id };
  const object = refTo('rung', rung);
  if (leg.owner && isRefused(run, leg.owner, rung)) {
    run.step('rule', 'rung-refuses', `${rung.name} is not for ${leg.owner.name}; the search ends here.`, { object });
    return ending({ ...base, outcome: 'refused', cause: REFUSED });
  }
  const place = run.exchange.places.get(siteId)!;
  const rest = (rung.prepend ?? '') + digits.slice(rung.strip);
  const number = readDigits(rest, rung.reading, place);
  const kind = kindFrom(number, place);
  if (!number.valid && !rung.asDialled) {
    run.step('number', 'number-invalid', `${rest} can't be called: ${number.why}.`, { object, in: digits, out: rest });
    return ending({ ...base, outcome: 'unroutable', kind, cause: UNALLOCATED });
  }
  sayNumber(run, number, digits, rest, kind);
  const refused = classRefuses(run, leg, kind);
  if (refused) return ending({ ...base, outcome: 'refused', kind, e164: number.e164, cause: REFUSED });
  const choice = chooseTrunk(run, rung.trunks, {
    cameBy: leg.entered ?? leg.cameBy,
    fromSite: leg.entered?.site ?? leg.owner?.site ?? leg.cameBy?.site ?? siteId,
    transit: leg.origin === 'transit',
    emergency: false,
  });
  if ('ended' in choice) return ending({ ...base, outcome: 'failed', kind, e164: number.e164, cause: choice.ended });
  const { trunk } = choice;
  const at = run.exchange.places.get(trunk.site)!;
  const digitsSent =
    (trunk.carrierPrefix ?? '') + (number.valid ? writeNumber(number, trunk.writes, at.country, at.area) : rest);
  const shown = shownNumber(run, leg, rung, trunk);
  run.step('end', 'call-ends', `${trunk.name} is sent ${digitsSent}.`, {
    object: refTo('trunk', trunk),
    in: rest,
    out: digitsSent,
  });
  return ending({
    ...base,
    outcome: 'routed',
    lands: {
      kind: 'outside',
      id: trunk.id,
      digits: digitsSent,
      label: `${number.e164 ?? digitsSent} through ${trunk.name}`,
    },
    kind,
    trunk: trunk.id,
    digitsSent,
    shownNumber: shown,
    e164: number.e164,
  });
}

function isRefused(run: Run, owner: { person: string | null; site: string }, rung: CompiledRung['rung']): boolean {
  const lists = { forPeople: rung.notForPeople, forTeams: rung.notForTeams, forSites: rung.notForSites };
  return isListed(run.exchange, lists, owner);
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

/** Whether the class of the extension behind the call forbids this kind (ENGINE E6); leaves a step either way. */
function classRefuses(run: Run, leg: Leg, kind: CallKind): boolean {
  if (!leg.owner || kind === 'emergency') return false;
  if (leg.origin === 'plan') return false;
  const owner = leg.owner;
  const cos = run.exchange.classes.get(owner.class)!;
  const right = cos.rights[kind];
  const object = refTo('class', cos);
  const words = CALL_KIND_WORDS[kind];
  if (leg.origin === 'forward') {
    if (right.forward) return false;
    run.step('right', 'forward-refused', `Class ${cos.name} does not let ${owner.name} forward to ${words} numbers.`, {
      object,
    });
    return true;
  }
  if (!right.allow) {
    run.step('right', 'class-refuses', `Class ${cos.name} refuses ${words} calls.`, { object });
    return true;
  }
  if (right.pin && run.situation.pin === undefined) {
    run.step('right', 'pin-missing', `Class ${cos.name} asks for a PIN for ${words} calls; none was entered.`, {
      object,
    });
    return true;
  }
  if (right.pin)
    run.step('right', 'pin-given', `Class ${cos.name} allows ${words} calls with a PIN; it was entered.`, { object });
  else run.step('right', 'class-allows', `Class ${cos.name} allows ${words} calls.`, { object });
  return false;
}
