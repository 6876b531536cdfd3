import { door } from '@/server/http/door';
import { operations } from '@/server/http/operations';
import { movePreview } from '@/server/people/acts';

export const POST = door(operations.movePreview, async ({ actor, body, params }) =>
  movePreview(actor, params.id!, body),
);
