import type { Choices } from './filters';

/** What every page of calls is told by the server. */
export interface AboutCalls extends Choices {
  /** the clock that days and hours are of, and its site */
  zone: string;
  /** the clocks of all sites */
  zones: string[];
  site: string;
  account: string;
  seesNumbers: boolean;
  mayAsk: boolean;
  mayKeep: boolean;
  mayBlock: boolean;
  maySet: boolean;
}
