import { door } from '@/server/http/door';
import { operations } from '@/server/http/operations';
import { previewBulk } from '@/server/bulk/bulk-edit';

export const POST = door(operations.bulkPreview, async ({ actor, body }) => previewBulk(actor, body));
