import {
  DEAD,
  HASH_INDEX,
  SYMBOL_COUNT,
  matchState,
  ordinal,
  run as runAutomaton,
  symbolIndex,
  whyNot,
  type Automaton,
} from '../digits';
import { INCOMPLETE, UNALLOCATED } from './cause';
import type { DialContext, DialRule } from './exchange';
import { ending, type Ending, type Run } from './run';

export type Collected = { rules: DialRule[]; digits: string } | { ended: Ending };

/**
 * Collects what a phone dials (ENGINE E3): symbol by symbol with timers, or as one block. Comes back with the rules that
 * match, best first, and the digits taken, or with how the call ended.
 */
export function collect(run: Run, context: DialContext): Collected {
  return run.call.enBloc ? collectBlock(run, context) : collectOneByOne(run, context);
}

function rulesAt(context: DialContext, state: number): DialRule[] {
  return context.automaton.accepts[state]!.map((i) => context.rules[i]!);
}

function collectOneByOne(run: Run, context: DialContext): Collected {
  const { automaton } = context;
  const { dial } = run.call;
  const { interDigitSeconds, firstDigitSeconds } = run.exchange.plan.organisation;
  let state = 0;
  for (let i = 0; i < dial.length; i++) {
    const symbol = symbolIndex(dial.charCodeAt(i));
    const next = symbol < 0 ? DEAD : automaton.next[state * SYMBOL_COUNT + symbol]!;
    const digits = dial.slice(0, i);
    if (next === DEAD && symbol === HASH_INDEX && automaton.accepts[state]!.length > 0) {
      run.rail.push({ symbol: '#', state: 'final' });
      return taken(
        run,
        context,
        state,
        digits,
        'digits-ended-by-hash',
        `# ends dialling: ${digits} is taken without a wait.`,
        dial.slice(i + 1),
      );
    }
    if (next === DEAD) {
      run.rail.push({ symbol: dial[i]!, state: 'dead' });
      return dead(run, context, dial.slice(0, i + 1), i);
    }
    state = next;
    const known = matchState(automaton, state);
    const rules = rulesAt(context, state);
    const emergency = rules[0]?.type === 'emergency';
    run.rail.push({ symbol: dial[i]!, state: emergency ? 'final' : known });
    if (emergency || known === 'final') {
      const sofar = dial.slice(0, i + 1);
      const why = emergency ? 'an emergency number is taken at its last digit' : 'nothing longer can match';
      return taken(run, context, state, sofar, 'digits-taken', `${sofar} is taken at once: ${why}.`, dial.slice(i + 1));
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
  if (automaton.accepts[state]!.length === 0) {
    run.step(
      'digits',
      'digits-incomplete',
      `${dial} is too short: it ${reason(automaton, dial)}. After ${interDigitSeconds} s the exchange gives up.`,
      { in: dial },
    );
    return { ended: ending({ outcome: 'incomplete', cause: INCOMPLETE }) };
  }
  return taken(
    run,
    context,
    state,
    dial,
    'digits-timed-out',
    `${dial} could still grow, so the exchange waits ${interDigitSeconds} s, then takes it.`,
    '',
  );
}

function collectBlock(run: Run, context: DialContext): Collected {
  const { dial } = run.call;
  const state = runAutomaton(context.automaton, dial);
  for (let i = 1; i <= dial.length; i++) {
    const prefix = runAutomaton(context.automaton, dial.slice(0, i));
    run.rail.push({ symbol: dial[i - 1]!, state: matchState(context.automaton, prefix) });
    if (prefix === DEAD) break;
  }
  if (state === DEAD) return dead(run, context, dial, run.rail.length - 1);
  if (context.automaton.accepts[state]!.length === 0) {
    run.step(
      'digits',
      'digits-incomplete',
      `${dial || 'Nothing'} is sent as one block and too short: it ${reason(context.automaton, dial)}.`,
      { in: dial },
    );
    return { ended: ending({ outcome: 'incomplete', cause: INCOMPLETE }) };
  }
  return taken(run, context, state, dial, 'digits-en-bloc', `${dial} is sent as one block: no timer runs.`, '');
}

function taken(
  run: Run,
  context: DialContext,
  state: number,
  digits: string,
  code: 'digits-taken' | 'digits-ended-by-hash' | 'digits-timed-out' | 'digits-en-bloc',
  sentence: string,
  rest: string,
): Collected {
  const more = rest === '' ? '' : ` What is dialled after it (${rest}) plays no part.`;
  run.step('digits', code, sentence + more, { in: run.call.dial, out: digits });
  return { rules: rulesAt(context, state), digits };
}

function dead(run: Run, context: DialContext, digits: string, at: number): Collected {
  run.step(
    'digits',
    'digits-dead',
    `Nothing begins with ${digits.slice(0, at + 1)}: the ${ordinal(at + 1)} symbol, ${digits[at]}, leads nowhere.`,
    { in: run.call.dial, notTaken: notTakenAt(context, digits) },
  );
  return { ended: ending({ outcome: 'unroutable', cause: UNALLOCATED }) };
}

function reason(automaton: Automaton, digits: string): string {
  return whyNot(automaton, digits) ?? 'matches';
}

/** Why neither emergency numbers, objects nor any rule of this phone took some digits. */
export function notTakenAt(context: DialContext, digits: string) {
  const groups = [
    { rule: 'emergency', label: 'Emergency numbers', automaton: context.emergency },
    { rule: 'extensions', label: 'Extensions', automaton: context.objects },
    ...context.rules.flatMap((r) =>
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
