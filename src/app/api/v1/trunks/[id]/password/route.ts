import { door } from '@/server/http/door';
import { operations } from '@/server/http/operations';
import { setPassword } from '@/server/draft/passwords';

export const PUT = door(operations.trunkPassword, async ({ actor, body, params }) =>
  setPassword(actor, 'trunk', params.id!, body.password),
);
