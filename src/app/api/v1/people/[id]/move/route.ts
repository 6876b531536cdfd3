import { door } from '@/server/http/door';
import { operations } from '@/server/http/operations';
import { move, moveProposal } from '@/server/people/acts';

export const GET = door(operations.moveProposal, async ({ actor, query, params }) =>
  moveProposal(actor, params.id!, query.site),
);
export const POST = door(operations.move, async ({ actor, body, params }) => move(actor, params.id!, body));
