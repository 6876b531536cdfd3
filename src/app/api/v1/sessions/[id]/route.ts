import { door } from '@/server/http/door';
import { operations } from '@/server/http/operations';
import { endSession } from '@/server/access/sessions';

export const DELETE = door(operations.endSession, async ({ actor, params }) => endSession(actor, params.id!));
