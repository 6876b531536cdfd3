import { door } from '@/server/http/door';
import { operations } from '@/server/http/operations';
import { assign } from '@/server/numbers/numbers';

export const POST = door(operations.assignNumbers, async ({ actor, body }) => assign(actor, body));
