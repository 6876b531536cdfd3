import type { Answer } from '@/contract';

/** The course with only those ways walked that the call has taken by now. */
export function litUntil(
  { course, trace }: NonNullable<Answer<'rehearse'>>,
  now: number,
): Answer<'rehearse'>['course'] {
  const since = (node: string): number => {
    if (node === 'lands') return trace.steps.find((s) => s.object?.id === trace.lands?.id)?.atSeconds ?? 0;
    const then = /^then (\d+)$/.exec(node);
    if (then) return trace.then[Number(then[1])]?.afterSeconds ?? 0;
    return trace.steps.find((s) => s.object && `${s.object.kind} ${s.object.id}` === node)?.atSeconds ?? 0;
  };
  const met = (node: string) => since(node) <= now + 0.05;
  return {
    ...course,
    ways: course.ways.map((w) => ({ ...w, walked: met(w.to) && (w.walked || /^then /.test(w.to)) })),
  };
}
