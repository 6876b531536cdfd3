import { door } from '@/server/http/door';
import { operations } from '@/server/http/operations';
import { endSecondFactor } from '@/server/access/second-factor';

export const DELETE = door(operations.resetSecondFactor, async ({ actor, params }) =>
  endSecondFactor(actor, params.id!),
);
