import { door } from '@/server/http/door';
import { operations } from '@/server/http/operations';
import { listSessions } from '@/server/access/sessions';
import { cookieOf } from '@/server/http/door';

export const GET = door(operations.sessions, async ({ actor, request }) => ({
  sessions: await listSessions(actor, cookieOf(request)),
}));
