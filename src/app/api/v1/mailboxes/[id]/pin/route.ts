import { door } from '@/server/http/door';
import { operations } from '@/server/http/operations';
import { setPin } from '@/server/state/pin';

export const PUT = door(operations.pin, async ({ actor, body, params }) => setPin(actor, params.id!, body.pin));
