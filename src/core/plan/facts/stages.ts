/** One stage of a ring group: how many members join, and seconds until the next stage. */
interface Stage {
  members: number;
  seconds: number;
}

const STAGE = /^(\d{1,3})(?: for (\d{1,3}))?$/;

/** Stages as they are written, `1 for 5, 2 for 10, 3`; only the last one needs no seconds. Null: it is not written so. */
export function readStages(text: string): Stage[] | null {
  const parts = text.split(',').map((part) => STAGE.exec(part.trim()));
  const out: Stage[] = [];
  for (const [i, found] of parts.entries()) {
    if (!found || (found[2] === undefined && i < parts.length - 1)) return null;
    const stage = { members: Number(found[1]), seconds: Number(found[2] ?? 0) };
    if (stage.members < 1 || stage.members > 200 || stage.seconds > 600 || (found[2] && stage.seconds < 1)) return null;
    out.push(stage);
  }
  return out;
}

/** How members of a ring group join by stages: all stages alike, or each as it is written. */
interface Joining {
  stageSeconds: number;
  stageMembers: number;
  stages: string;
}

/** Seconds after which the nth member (from 0) joins by stages. With the last stage that is written all join who are left. */
export function joinsAfter({ stageSeconds, stageMembers, stages }: Joining, nth: number): number {
  const written = stages === '' ? null : readStages(stages);
  if (!written) return Math.floor(nth / stageMembers) * stageSeconds;
  let [joined, after] = [0, 0];
  for (const { members, seconds } of written.slice(0, -1)) {
    joined += members;
    if (nth < joined) return after;
    after += seconds;
  }
  return after;
}
