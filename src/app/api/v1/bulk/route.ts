import { door } from '@/server/http/door';
import { operations } from '@/server/http/operations';
import { startBulk } from '@/server/bulk/bulk-edit';

export const POST = door(operations.bulk, async ({ actor, body }) => startBulk(actor, body));
