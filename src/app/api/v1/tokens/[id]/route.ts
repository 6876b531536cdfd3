import { door } from '@/server/http/door';
import { operations } from '@/server/http/operations';
import { revokeApiToken } from '@/server/access/tokens';

export const DELETE = door(operations.revokeToken, async ({ actor, params }) => revokeApiToken(actor, params.id!));
