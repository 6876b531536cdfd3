import { door } from '@/server/http/door';
import { operations } from '@/server/http/operations';
import { endSecondFactor, offerSecondFactor, startSecondFactor } from '@/server/access/second-factor';

export const POST = door(operations.offerSecondFactor, async ({ actor }) => offerSecondFactor(actor));
export const PUT = door(operations.startSecondFactor, async ({ actor, body }) =>
  startSecondFactor(actor, body.secret, body.code),
);
export const DELETE = door(operations.endSecondFactor, async ({ actor }) => endSecondFactor(actor, actor.account));
