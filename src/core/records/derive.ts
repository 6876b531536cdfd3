import { outcomeOf, type Exchange } from '../routing';
import { callOf, extensionNamed } from './as-call';
import type { CallRecord } from './record';
import type { WAYS } from './ways';

/* What is told of a record beside itself, so that it can be found and counted. */

export interface Derived {
  way: (typeof WAYS)[number];
  /** where it came into the exchange: the site of its number or phone; null: the plan knows neither */
  site: string | null;
  /** the party that is none of ours, E.164 where it was read; null: withheld, or there is none */
  other: string | null;
  /** a call from outside that nobody took: somebody may want to call back */
  missed: boolean;
  /** a call for help, which is never erased */
  emergency: boolean;
}

/** Ends at which a caller wanted somebody and reached nobody; null: the log doesn't know. */
const WANTED = new Set<string | null>([
  'extension',
  'ringGroup',
  'queue',
  'mailbox',
  'attendant',
  'directory',
  'tone',
  null,
]);
/** No emergency number is longer, with what is dialled before it. */
const MOST_EMERGENCY = 8;

export function derived(record: CallRecord, exchange: Exchange): Derived {
  const { entry, calling, called, lands } = record;
  if (entry.type === 'number') {
    const taken = record.answeredBy !== null || (lands !== null && !WANTED.has(lands.kind));
    return {
      way: 'in',
      site: exchange.numberByE164.get(entry.number)?.site ?? null,
      other: calling.read ?? calling.delivered,
      missed: !taken && record.outcome !== 'refused',
      emergency: false,
    };
  }
  const leaves =
    record.trunk !== null ||
    lands?.kind === 'outside' ||
    (called.read !== null && !exchange.numberByE164.has(called.read));
  const site = extensionNamed(exchange, entry.extension)?.site ?? null;
  return {
    way: leaves ? 'out' : 'inside',
    site,
    other: leaves ? (called.read ?? called.delivered) : null,
    missed: false,
    emergency: isEmergency(record, exchange),
  };
}

function isEmergency(record: CallRecord, exchange: Exchange): boolean {
  const dialled = record.called.delivered ?? '';
  if (dialled === '' || dialled.length > MOST_EMERGENCY) return false;
  const asked = callOf(record, exchange);
  return asked.ok && outcomeOf(exchange, asked.call).kind === 'emergency';
}
