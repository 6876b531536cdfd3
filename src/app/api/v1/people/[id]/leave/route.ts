import { door } from '@/server/http/door';
import { operations } from '@/server/http/operations';
import { leave, leaveProposal } from '@/server/people/acts';

export const GET = door(operations.leaveProposal, async ({ actor, params }) => leaveProposal(actor, params.id!));
export const POST = door(operations.leave, async ({ actor, body, params }) => leave(actor, params.id!, body));
