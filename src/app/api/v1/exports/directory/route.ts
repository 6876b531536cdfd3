import { door } from '@/server/http/door';
import { operations } from '@/server/http/operations';
import { exportDirectory } from '@/server/exports';

export const GET = door(operations.exportDirectory, async ({ actor, query }) => exportDirectory(actor, query));
