import { door } from '@/server/http/door';
import { operations } from '@/server/http/operations';
import { Refused } from '@/server/access/rights';
import { undoEdit, undoLast } from '@/server/draft';

export const POST = door(operations.undo, async ({ actor, body }) => {
  if (body.kind === undefined && body.id === undefined) return undoLast(actor);
  if (body.kind === undefined || body.id === undefined)
    throw new Refused(400, 'half-named', 'Name kind and id, or neither.', body.kind ? 'id' : 'kind');
  return undoEdit(actor, body.kind, body.id);
});
