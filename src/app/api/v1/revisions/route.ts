import { door } from '@/server/http/door';
import { operations } from '@/server/http/operations';
import { listRevisions } from '@/server/draft';

export const GET = door(operations.revisions, async ({ actor }) => ({ revisions: await listRevisions(actor) }));
