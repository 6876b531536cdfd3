import { door } from '@/server/http/door';
import { operations } from '@/server/http/operations';
import { listApiTokens, makeApiToken } from '@/server/access/tokens';

export const GET = door(operations.tokens, async ({ actor }) => ({ tokens: await listApiTokens(actor) }));
export const POST = door(operations.makeToken, async ({ actor, body }) => makeApiToken(actor, body));
