import { door } from '@/server/http/door';
import { operations } from '@/server/http/operations';
import { changeSettings } from '@/server/access/settings';

export const PUT = door(operations.settings, async ({ actor, body }) => changeSettings(actor, body));
