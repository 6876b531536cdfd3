import { door } from '@/server/http/door';
import { operations } from '@/server/http/operations';
import { setForwarding } from '@/server/state/forwarding';

export const PUT = door(operations.forwarding, async ({ actor, body, params }) =>
  setForwarding(actor, params.id!, body),
);
