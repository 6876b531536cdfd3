import { door } from '@/server/http/door';
import { operations } from '@/server/http/operations';
import { exportSheet } from '@/server/exports';

export const GET = door(operations.exportSheet, async ({ actor, query }) => exportSheet(actor, query));
