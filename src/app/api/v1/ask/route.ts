import { door } from '@/server/http/door';
import { operations } from '@/server/http/operations';
import { ask } from '@/server/exchange/ask';

export const GET = door(operations.ask, async ({ actor, query }) => ask(actor, query.text));
