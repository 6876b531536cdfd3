import { door } from '@/server/http/door';
import { operations } from '@/server/http/operations';
import { resetPassword } from '@/server/access/administrators';

export const POST = door(operations.resetPassword, async ({ actor, params }) => resetPassword(actor, params.id!));
