import { door } from '@/server/http/door';
import { operations } from '@/server/http/operations';
import { makeSipPassword, showSipPassword } from '@/server/draft/passwords';

export const POST = door(operations.sipPassword, async ({ actor, body, params }) => ({
  password: body.make ? await makeSipPassword(actor, params.id!) : await showSipPassword(actor, params.id!),
}));
