import { door } from '@/server/http/door';
import { operations } from '@/server/http/operations';
import { goLive } from '@/server/draft';

export const POST = door(operations.goLive, async ({ actor, body }) => goLive(actor, body.draftVersion, body.note));
