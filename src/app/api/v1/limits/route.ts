import { door } from '@/server/http/door';
import { operations } from '@/server/http/operations';
import { draftPlan } from '@/server/draft';
import { limitUse, readLimits, setLimits } from '@/server/draft/limits';

export const GET = door(operations.limits, async () => ({
  limits: await readLimits(),
  use: await limitUse((await draftPlan()).plan),
}));
export const PUT = door(operations.setLimits, async ({ actor, body }) => setLimits(actor, body));
