import { HASH_INDEX, ordinal, symbolIndex, whyNoneOf, whyNot } from '../digits';
import { INCOMPLETE, UNALLOCATED } from '../exchange/cause';
import {
  DIAL_START,
  automataOf,
  dialMatch,
  dialled,
  rulesAt,
  winnerAt,
  type DialContext,
  type DialRule,
  type DialState,
} from '../exchange/context';
import type { Ending } from '../exchange/answer';
import { ending, type Run } from './run';

/** A string of so many symbols is final (ENGINE E3). */
const LONGEST_DIALLED = 32;

/** `rest` is what was dialled after the digits taken. */
export type Collected = { rules: DialRule[]; digits: string; rest: string } | { ended: Ending };

/**
 * Collects what a phone dials (ENGINE E3): symbol by symbol with timers, or as one block. Comes back with the rules that
 * match, best first, and the digits taken, or with how the call ended.
 */
export function collect(run: Run, context: DialContext, dial = run.call.dial): Collected {
  return run.call.enBloc ? collectBlock(run, context, dial) : collectOneByOne(run, context, dial);
}

function collectOneByOne(run: Run, context: DialContext, dial: string): Collected {
  const { interDigitSeconds, firstDigitSeconds } = run.exchange.plan.organisation;
  let state = DIAL_START;
  for (let i = 0; i < dial.length; i++) {
    const next = dialled(context, state, dial.charCodeAt(i));
    if (!next && symbolIndex(dial.charCodeAt(i)) === HASH_INDEX && rulesAt(context, state).length > 0) {
      const digits = dial.slice(0, i);
      run.rail.push({ symbol: '#', state: 'final' });
      const sentence = `# ends dialling: ${digits} is taken without a wait.`;
      return taken(run, rulesAt(context, state), digits, 'digits-ended-by-hash', sentence, dial.slice(i + 1));
    }
    if (!next) {
      run.rail.push({ symbol: dial[i]!, state: 'dead' });
      return dead(run, context, dial.slice(0, i + 1), i);
    }
    state = next;
    const winner = winnerAt(context, state);
    const emergency = winner?.type === 'emergency';
    const full = winner !== undefined && i + 1 === LONGEST_DIALLED;
    const known = winner ? dialMatch(context, state) : 'open';
    run.rail.push({ symbol: dial[i]!, state: emergency || full ? 'final' : known });
    if (emergency || full || known === 'final') {
      const sofar = dial.slice(0, i + 1);
      const why = emergency
        ? 'an emergency number is taken at its last digit'
        : full
          ? `${LONGEST_DIALLED} symbols are the most that can be dialled`
          : 'nothing longer can match';
      return taken(
        run,
        rulesAt(context, state),
        sofar,
        'digits-taken',
        `${sofar} is taken at once: ${why}.`,
        dial.slice(i + 1),
      );
    }
  }
  if (dial === '') {
    run.wait(firstDigitSeconds);
    run.step('digits', 'digits-no-start', `Nothing is dialled for ${firstDigitSeconds} s; the exchange gives up.`, {
      in: '',
    });
    return { ended: ending({ outcome: 'incomplete', cause: INCOMPLETE }) };
  }
  run.wait(interDigitSeconds);
  const rules = rulesAt(context, state);
  if (rules.length === 0) {
    const sentence = `${dial} is too short: it ${reason(context, dial)}. After ${interDigitSeconds} s the exchange gives up.`;
    run.step('digits', 'digits-incomplete', sentence, { in: dial });
    return { ended: ending({ outcome: 'incomplete', cause: INCOMPLETE }) };
  }
  const sentence = `${dial} could still grow, so the exchange waits ${interDigitSeconds} s, then takes it.`;
  return taken(run, rules, dial, 'digits-timed-out', sentence, '');
}

function collectBlock(run: Run, context: DialContext, dial: string): Collected {
  let state: DialState | null = DIAL_START;
  for (let i = 0; i < dial.length && state; i++) {
    state = dialled(context, state, dial.charCodeAt(i));
    run.rail.push({ symbol: dial[i]!, state: state ? dialMatch(context, state) : 'dead' });
  }
  if (!state) return dead(run, context, dial, run.rail.length - 1);
  const rules = rulesAt(context, state);
  if (rules.length === 0) {
    const sentence = `${dial || 'Nothing'} is sent as one block and too short: it ${reason(context, dial)}.`;
    run.step('digits', 'digits-incomplete', sentence, { in: dial });
    return { ended: ending({ outcome: 'incomplete', cause: INCOMPLETE }) };
  }
  return taken(run, rules, dial, 'digits-en-bloc', `${dial} is sent as one block: no timer runs.`, '');
}

function taken(
  run: Run,
  rules: DialRule[],
  digits: string,
  code: 'digits-taken' | 'digits-ended-by-hash' | 'digits-timed-out' | 'digits-en-bloc',
  sentence: string,
  rest: string,
): Collected {
  const withheld = rules[0]?.type === 'service' && rules[0].code.service === 'withhold number';
  const more = rest === '' || withheld ? '' : ` What is dialled after it (${rest}) plays no part.`;
  run.step('digits', code, sentence + more, { in: run.call.dial, out: digits });
  return { rules, digits, rest };
}

function dead(run: Run, context: DialContext, digits: string, at: number): Collected {
  run.step(
    'digits',
    'digits-dead',
    `Nothing begins with ${digits.slice(0, at + 1)}: the ${ordinal(at + 1)} symbol, ${digits[at]}, leads nowhere.`,
    { in: run.call.dial, notTaken: run.told ? notTakenAt(context, digits) : [] },
  );
  return { ended: ending({ outcome: 'unroutable', cause: UNALLOCATED }) };
}

function reason(context: DialContext, digits: string): string {
  return whyNoneOf(automataOf(context), digits) ?? 'matches';
}

/** Why neither emergency numbers, objects nor any rule of this phone took some digits. */
export function notTakenAt(context: DialContext, digits: string) {
  const groups = [
    { rule: 'emergency', label: 'Emergency numbers', automaton: context.emergency.automaton },
    { rule: 'extensions', label: 'Extensions', automaton: context.objects.automaton },
    ...context.ladder.rules.flatMap((r) =>
      r.type === 'rung'
        ? [{ rule: r.compiled.rung.id, label: r.compiled.rung.name, automaton: r.compiled.map.automaton }]
        : [],
    ),
  ];
  return groups.flatMap((g) => {
    const why = whyNot(g.automaton, digits);
    return why ? [{ rule: g.rule, label: g.label, code: 'digits-differ' as const, why }] : [];
  });
}
