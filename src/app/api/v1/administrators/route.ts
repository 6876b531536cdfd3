import { door } from '@/server/http/door';
import { operations } from '@/server/http/operations';
import { addAdministrator, listAdministrators } from '@/server/access/administrators';

export const GET = door(operations.administrators, async ({ actor }) => ({
  administrators: await listAdministrators(actor),
}));
export const POST = door(operations.addAdministrator, async ({ actor, body }) => addAdministrator(actor, body));
