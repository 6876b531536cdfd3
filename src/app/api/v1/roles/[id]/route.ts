import { door } from '@/server/http/door';
import { operations } from '@/server/http/operations';
import { deleteRole, saveRole } from '@/server/access/roles';

export const PUT = door(operations.changeRole, async ({ actor, body, params }) => saveRole(actor, params.id!, body));
export const DELETE = door(operations.deleteRole, async ({ actor, params }) => deleteRole(actor, params.id!));
