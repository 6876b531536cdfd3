import { door } from '@/server/http/door';
import { operations } from '@/server/http/operations';
import { keepFile } from '@/server/import/imports';

export const POST = door(operations.importFile, async ({ actor, query, file }) => keepFile(actor, query.name, file));
