import { objectsOf, OBJECT_KINDS, readPlan, type AnyObject, type Plan } from '@/core/plan';
import { randomPlan, type Chance } from './random';

/** A plan with a few of its objects as another random plan has them; null where that is no plan. */
export function editedPlan(chance: Chance, plan: Plan): Plan | null {
  const other = randomPlan(chance);
  const text = JSON.parse(JSON.stringify(plan)) as Record<string, { id: string }[]>;
  for (let n = 1 + chance.below(3); n > 0; n--) {
    const kind = chance.one(OBJECT_KINDS);
    const mine = objectsOf(plan, kind) as AnyObject[];
    const theirs = (objectsOf(other, kind) as AnyObject[]).filter((o) => mine.some((m) => m.id === o.id));
    if (theirs.length === 0) continue;
    const object = chance.one(theirs);
    const list = Object.entries(plan).find(([, value]) => value === (mine as unknown))![0];
    text[list] = text[list]!.map((o) =>
      o.id === object.id ? (JSON.parse(JSON.stringify(object)) as { id: string }) : o,
    );
  }
  const read = readPlan(text);
  return read.ok ? read.plan : null;
}
