import { door } from '@/server/http/door';
import { operations } from '@/server/http/operations';
import { listRoles, saveRole } from '@/server/access/roles';

export const GET = door(operations.roles, async () => ({ roles: await listRoles() }));
export const POST = door(operations.makeRole, async ({ actor, body }) => saveRole(actor, null, body));
