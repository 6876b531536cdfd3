/** The registry of destination kinds (ARCHITECTURE principle 2). */
import type { ObjectOf } from '../plan';
import { offerExtension } from './extension';
import type { DestinationKind } from './kinds';
import { offerMailbox } from './mailbox';
import type { Behaviour } from './offer';

export * from './kinds';
export * from './offer';

export const BEHAVIOURS: { [K in DestinationKind]: Behaviour<ObjectOf[K]> } = {
  extension: offerExtension,
  mailbox: offerMailbox,
};
