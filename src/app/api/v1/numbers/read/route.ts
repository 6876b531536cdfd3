import { door } from '@/server/http/door';
import { operations } from '@/server/http/operations';
import { readList } from '@/server/numbers/numbers';

export const POST = door(operations.readNumbers, async ({ actor, body }) => readList(actor, body));
