import { readWhen } from '@/core/ask';
import { differences } from '@/core/plan';
import { AHEAD_MS, impactOf, type ImpactGroup, type ToldEnd } from '@/core/proof';
import { Refusal, flagsOf, need, type Answer } from './answer';
import { exchangeOf } from './plan';
import { situationOf } from './trace';

/** Every kind of call that ends otherwise in one plan than in another, within 53 weeks from a moment. */
export function impactCommand(args: string[]): Answer {
  const { flags } = flagsOf(args, { flags: ['from', 'to', 'at', 'situation'], words: 0 });
  const was = exchangeOf(need(flags, 'from', 'the plan file as it was'));
  const willBe = exchangeOf(need(flags, 'to', 'the plan file as it would be'));
  const read = readWhen(flags.get('at') ?? 'now', 'UTC', Date.now());
  if (!read.ok) throw new Refusal('bad-time', '--at', read.sentence);
  const situation = situationOf(flags.get('situation'), willBe);
  const span = { from: read.at, to: read.at + AHEAD_MS };
  const groups = impactOf({ was, willBe, situation, span }, differences(was.plan, willBe.plan));
  return { exit: groups.length > 0 ? 1 : 0, value: { groups }, text: inWords(groups) };
}

const endInWords = (end: ToldEnd | null): string =>
  end === null ? 'nothing there' : end.lands ? end.lands.label : `${end.outcome}, cause ${end.cause?.q850 ?? 'none'}`;

function inWords(groups: readonly ImpactGroup[]): string {
  if (groups.length === 0) return 'Nothing changes for anyone.';
  return groups
    .map(({ count, aspects, was, willBe, example: { call }, edits }) => {
      const as = `as ${call.from} > ${call.dial} @ ${call.at}`;
      const by = edits.map((e) => e.label).join(' and ');
      return `${String(count).padStart(8)}  ${endInWords(was)} → ${endInWords(willBe)} (${aspects.join(', ')}); ${as}; by ${by}`;
    })
    .join('\n');
}
