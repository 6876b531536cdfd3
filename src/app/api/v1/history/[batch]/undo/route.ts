import { door } from '@/server/http/door';
import { operations } from '@/server/http/operations';
import { undoNamed } from '@/server/draft';

export const POST = door(operations.undoBatch, async ({ actor, params }) => undoNamed(actor, params.batch!));
