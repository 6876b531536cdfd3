import { door } from '@/server/http/door';
import { operations } from '@/server/http/operations';
import { makeSipPassword, showSipPassword } from '@/server/draft/passwords';

export const POST = door(operations.sipPassword, async ({ actor, body, params }) => ({
  password:
    body.make || body.password !== null
      ? await makeSipPassword(actor, params.id!, body.password)
      : await showSipPassword(actor, params.id!),
}));
