import type { rehearsalFacts } from '@/contract/rehearsals';
import { dropRehearsal, keepRehearsal, rehearsals } from './kept-rehearsals';
import type { Handlers } from './handler';

export const rehearsalHandlers: Handlers<keyof typeof rehearsalFacts> = {
  rehearsals: ({ actor, query }) => rehearsals(actor, query.of),
  keepRehearsal: ({ actor, body }) => keepRehearsal(actor, body),
  dropRehearsal: ({ actor, params }) => dropRehearsal(actor, params.id),
};
