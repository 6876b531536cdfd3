import { door } from '@/server/http/door';
import { operations } from '@/server/http/operations';
import { applyEdits, pendingEdits } from '@/server/draft';

export const GET = door(operations.edits, async ({ actor }) => pendingEdits(actor));
export const POST = door(operations.edit, async ({ actor, body }) => applyEdits(actor, body.edits));
