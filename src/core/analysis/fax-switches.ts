import { BEHAVIOURS, type Behaviour } from '../destinations';
import type { AnyObject, Attendant, DestinationKind, Extension, ObjectOf, Queue } from '../plan';
import type { Exchange } from '../routing';
import { at, type Problem } from './problem';

type Place = { kind: DestinationKind; object: ObjectOf[DestinationKind] };

/** What a caller would hear spoken at a place; null: nothing, a fax machine is understood there. */
function speech({ kind, object }: Place): string | null {
  switch (kind) {
    case 'attendant':
    case 'directory':
      return 'greets and waits for keys';
    case 'mailbox':
      return 'greets and records';
    case 'announcement':
      return (object as { prompt: string | null }).prompt ? 'plays its prompt' : null;
    case 'queue':
      return (object as Queue).intro ? 'plays its introduction' : null;
    case 'conference':
      return 'is where people talk';
    default:
      return null;
  }
}

/** Everything behind a time switch for fax that would speak to the machine that calls (ENGINE E14). */
export function faxSwitches(exchange: Exchange): Problem[] {
  return exchange.plan.timeSwitches
    .filter((s) => s.fax)
    .flatMap((s) => {
      const met = new Set<string>([s.id]);
      const out: Problem[] = [];
      const look = (id: string, part: number) => {
        const place = exchange.destinations.get(id);
        if (!place) return;
        const said = speech(place);
        if (said !== null)
          out.push({
            type: 'fax-switch-speaks',
            severity: 'error',
            object: at('timeSwitch', s),
            sentence: `${s.name} is for fax, and a call can come to ${place.object.name}, which ${said}.`,
            mend: 'Lead it to a fax or a phone for fax, or take the mark off.',
          });
        // Nobody sets a state of presence at a fax machine: only its mailbox can answer in its place.
        else if (place.kind === 'extension' && (place.object as Extension).kind === 'fax') {
          const { mailbox } = place.object as Extension;
          if (mailbox) look(mailbox, 0);
        } else ways(place, part);
      };
      const ways = ({ kind, object }: Place, part: number) => {
        const behaviour = BEHAVIOURS[kind] as Behaviour<AnyObject | Attendant>;
        for (const { to } of behaviour.ways(object, exchange, part, null, 'outside')) {
          if (to.type !== 'destination') continue;
          const key = `${to.id} ${to.part ?? 0}`;
          if (met.has(key)) continue;
          met.add(key);
          look(to.id, to.part ?? 0);
        }
      };
      ways({ kind: 'timeSwitch', object: s }, 0);
      return out;
    });
}
