/** The registry of destination kinds (ARCHITECTURE principle 2). */
import type { ObjectOf } from '../plan';
import { announcement } from './announcement';
import { attendant } from './attendant';
import { directory } from './directory';
import { extension } from './extension';
import type { DestinationKind } from '../plan';
import { mailbox } from './mailbox';
import type { Behaviour } from './offer';
import { outsideNumber } from './outside-number';
import { queue } from './queue';
import { reachPlan } from './reach-plan';
import { ringGroup } from './ring-group';
import { conference } from './conference';
import { fax } from './fax';
import { pageGroup } from './page-group';
import { parkPlace } from './park-place';
import { tone } from './tone';
import { timeSwitch } from './time-switch';

export * from '../plan';
export * from './offer';
export {
  greetingOf,
  isMissing as attendantModeIsMissing,
  keysOf as attendantKeysIn,
  modeNow as attendantModeNow,
} from './attendant-mode';
export { inScope as dialledAtAttendant, scopeOf as scopeOfAttendant } from './attendant-menu';
export {
  diallingsAtAttendant,
  diallingsAtDirectory,
  takesExtensions,
  vainAtAttendant,
  vainAtDirectory,
  type Dialling,
} from './diallings';
export { directoryLists } from './directory';
export { CALLED_BACK, JUST_RUNG } from './extension';
export { keysOfName } from './names';
export { signedInAgents } from './queue';

export const BEHAVIOURS: { [K in DestinationKind]: Behaviour<ObjectOf[K]> } = {
  extension,
  mailbox,
  ringGroup,
  queue,
  attendant,
  timeSwitch,
  announcement,
  directory,
  outsideNumber,
  conference,
  pageGroup,
  fax,
  parkPlace,
  tone,
  reachPlan,
};
