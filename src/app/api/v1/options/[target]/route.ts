import { door } from '@/server/http/door';
import { operations } from '@/server/http/operations';
import { findOptions } from '@/server/options';

export const GET = door(operations.options, async ({ actor, query, params }) => ({
  options: await findOptions(actor, params.target!, query.text),
}));
