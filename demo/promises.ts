import type { z } from 'zod';
import { CALL_KINDS } from '@/core/numbers/kinds';
import type { planSchema } from '@/core/plan';

type Promises = NonNullable<z.input<typeof planSchema>['promises']>;

/** What the demo company wants to be sure of. */
export const PROMISES: Promises = [
  {
    id: 'emergency-own-site',
    name: 'Emergency calls leave at their own site',
    firm: true,
    dialKinds: ['emergency'],
    must: 'leaves at its own site',
    note: 'From every phone, at any time, also while a trunk is down.',
  },
  {
    id: 'lobby-stays-inside',
    name: 'Phones that anybody can pick up never go outside',
    firm: true,
    fromClasses: ['quay-phone', 'lobby'],
    dialKinds: CALL_KINDS.filter((k) => !['emergency', 'internal', 'service'].includes(k)),
    must: 'never reaches',
    ends: ['the outside'],
  },
  {
    id: 'main-number-answered',
    name: 'The main number reaches somebody or a mailbox',
    from: 'outside callers',
    fromNumbers: ['n-441632960100'],
    must: 'can reach',
    ends: ['a phone', 'a mailbox', 'a queue or group'],
  },
  {
    id: 'no-line-for-strangers',
    name: 'No caller from outside gets an outside line of their choosing',
    firm: true,
    from: 'outside callers',
    must: 'never reaches',
    ends: ['the outside by own choice'],
  },
  {
    id: 'fax-silent',
    name: 'Fax ways are silent',
    from: 'outside callers',
    fromNumbers: ['n-441632960170', 'n-441632960171'],
    must: 'hears nothing',
  },
];
