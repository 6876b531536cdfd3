import { door } from '@/server/http/door';
import { operations } from '@/server/http/operations';
import { addNumbers } from '@/server/numbers/numbers';

export const POST = door(operations.addNumbers, async ({ actor, body }) => addNumbers(actor, body));
