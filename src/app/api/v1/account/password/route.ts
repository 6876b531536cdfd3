import { door } from '@/server/http/door';
import { operations } from '@/server/http/operations';
import { changeOwnPassword } from '@/server/access/administrators';

export const PUT = door(operations.ownPassword, async ({ actor, body }) =>
  changeOwnPassword(actor, body.old, body.password),
);
