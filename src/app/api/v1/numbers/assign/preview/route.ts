import { door } from '@/server/http/door';
import { operations } from '@/server/http/operations';
import { previewAssign } from '@/server/numbers/numbers';

export const POST = door(operations.assignPreview, async ({ actor, body }) => previewAssign(actor, body));
