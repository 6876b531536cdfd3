import { door } from '@/server/http/door';
import { operations } from '@/server/http/operations';
import { setMember } from '@/server/people/teams';

export const PUT = door(operations.teamMember, async ({ actor, body, params }) =>
  setMember(actor, params.id!, params.person!, body.member),
);
