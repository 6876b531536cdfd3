import { diallingsAtAttendant, diallingsAtDirectory, type Dialling } from '../destinations';
import type { Attendant, Directory } from '../plan';
import type { Exchange } from '../routing';
import type { AlikePhones } from './alike-phones';
import type { Affected } from './affected';

/** Rows of keys at a place where callers dial extensions or spell names. */
export interface DialledRows {
  /** to one of each group of extensions that take calls alike, and to what stands alone in every way that is not the same in all plans */
  tried: readonly string[];
  /** to the others of these groups */
  others: readonly string[];
}

const NOTHING: DialledRows = { tried: [], others: [] };

/** What is dialled where callers may dial extensions or spell names, in some plans side by side. */
export class DialledAt {
  private readonly rows = new Map<string, DialledRows>();
  private readonly inAll: string;
  private moved: readonly string[] | undefined;

  constructor(
    private readonly exchanges: readonly Exchange[],
    private readonly affected: Affected,
    private readonly alike: AlikePhones,
  ) {
    this.inAll = exchanges.map((_, i) => ` ${i}`).join('');
  }

  /** What is dialled at an attendant or a directory; all that others have, or only extensions that an edit can make a difference to. */
  rowsAt(id: string): DialledRows {
    let found = this.rows.get(id);
    if (!found) this.rows.set(id, (found = this.make(id)));
    return found;
  }

  private make(id: string): DialledRows {
    const lists = this.exchanges.map((x) => diallingsAt(x, id));
    if (lists.every((list) => list.length === 0)) return NOTHING;
    const { all, ids, partly } = this.affected;
    const whole = all || !partly.has(id);
    // In which of the plans each row of keys leads to an extension.
    const rows = new Map<string, Map<string, string>>();
    lists.forEach((list, i) => {
      for (const { keys, leads } of list) {
        const known = rows.get(leads) ?? new Map<string, string>();
        rows.set(leads, known.set(keys, `${known.get(keys) ?? ''} ${i}`));
      }
    });
    const groups = new Set<string>();
    const tried: string[] = [];
    const others: string[] = [];
    for (const [extension, ways] of rows) {
      const [first] = ways.keys();
      const plans = new Set(ways.values());
      // What begins like digits that are new or gone is read otherwise.
      const beside = this.movedDigits().filter((d) => d.startsWith(first!) || first!.startsWith(d));
      if (!whole && !ids.has(extension) && beside.length === 0) continue;
      const group = this.alike.keyOf(extension);
      const key = `${group} ${[...plans].join()} ${beside.join()}`;
      // Rows that all plans have lead to the same extension: one tells what becomes of it.
      if (group === null) tried.push(...(plans.size > 1 || !plans.has(this.inAll) ? ways.keys() : [first!]));
      else if (groups.has(key)) others.push(first!);
      else tried.push(first!);
      groups.add(key);
    }
    return { tried, others };
  }

  /** Digits of extensions that not all of the plans have, or have for the same one. */
  private movedDigits(): readonly string[] {
    if (this.moved) return this.moved;
    const out = new Set<string>();
    for (const id of this.exchanges.length > 1 ? this.affected.ids : []) {
      const digits = this.exchanges.map((x) => x.extensions.get(id)?.digits);
      if (digits.some((d) => d !== digits[0])) for (const d of digits) if (d !== undefined) out.add(d);
    }
    return (this.moved = [...out]);
  }
}

const known = new WeakMap<Exchange, Map<string, readonly Dialling[]>>();

function diallingsAt(exchange: Exchange, id: string): readonly Dialling[] {
  const ofExchange = known.get(exchange) ?? new Map<string, readonly Dialling[]>();
  known.set(exchange, ofExchange);
  let found = ofExchange.get(id);
  if (!found) ofExchange.set(id, (found = made(exchange, id)));
  return found;
}

function made(exchange: Exchange, id: string): readonly Dialling[] {
  const place = exchange.destinations.get(id);
  if (place?.kind === 'attendant') return diallingsAtAttendant(exchange, place.object as Attendant);
  return place?.kind === 'directory' ? diallingsAtDirectory(exchange, place.object as Directory) : [];
}
