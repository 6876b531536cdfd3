import { door } from '@/server/http/door';
import { operations } from '@/server/http/operations';
import { addSite } from '@/server/sites/sites';

export const POST = door(operations.addSite, async ({ actor, body }) => addSite(actor, body));
