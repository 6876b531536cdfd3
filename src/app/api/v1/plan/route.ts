import { door } from '@/server/http/door';
import { operations } from '@/server/http/operations';
import { planOf } from '@/server/exchange/answer';

export const GET = door(operations.plan, async ({ query }) => (await planOf(query.of)).plan);
