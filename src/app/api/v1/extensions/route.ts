import { door } from '@/server/http/door';
import { operations } from '@/server/http/operations';
import { addExtension } from '@/server/draft';

export const POST = door(operations.addExtension, async ({ actor, body }) => addExtension(actor, body));
