import type { Actor } from '../access/rights';
import { ask } from '../engine';
import { entriesIn, type Entry } from './entries';

const FAR = Date.UTC(2200, 0, 1);

/** What is set beside the draft, at what and leading where, in the words of the people who read it. */
function sentencesOf({ kind, subject, value }: Entry, gone: Readonly<Record<string, string>>, at: string): string[] {
  const what = { notice: `The notice at ${at}`, switch: `${at} as set by hand`, blocked: 'A blocked caller' };
  // What people set for themselves goes with them.
  if (kind !== 'notice' && kind !== 'switch' && kind !== 'blocked') return [];
  if (gone[subject]) return [`${what[kind]}: ${gone[subject]} goes, and it holds at nothing any more.`];
  const lost = (id: unknown) => (typeof id === 'string' ? gone[id] : undefined);
  const [leads, plays] = [lost(value.leadsTo), lost(value.prompt)];
  return [
    ...(leads ? [`${what[kind]} leads to ${leads}, which goes: callers go where the plan says then.`] : []),
    ...(plays ? [`${what[kind]} plays ${plays}, which goes: nothing more is heard then.`] : []),
  ];
}

/** What acts at once (notices, time switches set by hand, blocked callers) and would lose what it is about if the draft went live now. */
export async function losing(actor: Actor): Promise<string[]> {
  const entries = await entriesIn({ from: Date.now(), to: FAR });
  const ids = entries
    .flatMap((e) => [e.subject, e.value.leadsTo, e.value.prompt])
    .filter((v): v is string => typeof v === 'string');
  if (ids.length === 0) return [];
  const gone = await ask('goesWithDraft', { reader: actor, ids: [...new Set(ids)] });
  const names = await ask('namesOf', { reader: actor, ids: [...new Set(entries.map((e) => e.subject))] });
  return entries.flatMap((e) => sentencesOf(e, gone, names[e.subject]?.label ?? 'something'));
}
