import { door } from '@/server/http/door';
import { operations } from '@/server/http/operations';
import { startImport } from '@/server/import/imports';

export const POST = door(operations.importApply, async ({ actor, body, params }) =>
  startImport(actor, params.id!, body, true),
);
