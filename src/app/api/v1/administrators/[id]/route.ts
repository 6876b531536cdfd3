import { door } from '@/server/http/door';
import { operations } from '@/server/http/operations';
import { changeAdministrator } from '@/server/access/administrators';

export const PUT = door(operations.changeAdministrator, async ({ actor, body, params }) =>
  changeAdministrator(actor, params.id!, body),
);
