import type { DialContext, Layer } from '../exchange/context';
import type { Exchange, Situation } from '../routing';
import type { Affected } from './affected';
import { stringOf, type Literal } from './literals';

/** A string that stands in the plan, for all that lead to phones which take calls alike. */
export interface LiteralGroup {
  dial: string;
  literal: Literal;
  /** another string of the group, for whoever has the first one; null: there is none */
  other: string | null;
}

/** Everything named in what holds beside the plan, whatever is said of it. */
export function namesIn(value: unknown, out = new Set<string>()): ReadonlySet<string> {
  if (typeof value === 'string') out.add(value);
  else if (value !== null && typeof value === 'object')
    for (const [key, inner] of Object.entries(value)) namesIn(inner, out.add(key));
  return out;
}

/** What decides how a phone takes calls, as text; null: something is known of it alone. */
function takesCallsAs(exchange: Exchange, id: string, named: ReadonlySet<string>): string | null {
  const phone = exchange.extensions.get(id)!;
  const { person, mailbox, reachPlan } = phone;
  if (reachPlan !== null || [id, person, mailbox].some((name) => name !== null && named.has(name))) return null;
  if (exchange.presenceChoices.has(id)) return null;
  const box = mailbox === null ? null : exchange.destinations.get(mailbox)?.object;
  const { ringSeconds, lines, callWaiting, rejectsWithheld, site, kind } = phone;
  const teams = person === null ? null : (exchange.people.get(person)?.teams ?? []);
  const left = { ...box, id: null, name: null, digits: null, owners: null, email: null };
  return JSON.stringify([
    kind,
    site,
    phone.class,
    ringSeconds,
    lines,
    callWaiting,
    rejectsWithheld,
    teams,
    box && left,
  ]);
}

/** Of which phones nothing tells how they take calls, in some plans side by side. */
export class AlikePhones {
  private readonly keys = new Map<string, string | null>();
  private readonly short = new Map<string, string>();
  private readonly named: ReadonlySet<string>;
  private readonly off: ReadonlySet<string>;

  /**
   * @param affected what an edit can make a difference to: it is tried in more ways than others
   * @param then what holds for the last of the plans, where that is not the same; who is off then is told from others
   * @param apart what stands alone besides
   */
  constructor(
    private readonly exchanges: readonly Exchange[],
    private readonly affected: Affected,
    situation: Situation,
    then: Situation = situation,
    apart: readonly string[] = [],
  ) {
    this.named = new Set([...namesIn(situation), ...apart]);
    this.off = new Set(then.off);
  }

  /** The same for phones that take calls alike; null: the phone is edited, or something is known of it alone. */
  keyOf(id: string): string | null {
    let key = this.keys.get(id);
    if (key === undefined) this.keys.set(id, (key = this.make(id)));
    return key;
  }

  private make(id: string): string | null {
    const [first, ...others] = this.exchanges;
    const phone = first!.extensions.get(id);
    if (!phone) return null;
    const { person, mailbox } = phone;
    const behind = (x: Exchange) => [
      x.extensions.get(id),
      person === null ? null : x.people.get(person),
      mailbox === null ? null : x.destinations.get(mailbox)?.object,
    ];
    const mine = behind(first!);
    if (others.some((x) => x.presenceChoices.has(id) || behind(x).some((o, i) => o !== mine[i]))) return null;
    const as = takesCallsAs(first!, id, this.named);
    if (as === null) return null;
    const { all, ids } = this.affected;
    const long = [as, all || ids.has(id), all || (mailbox !== null && ids.has(mailbox)), this.off.has(id)].join();
    let short = this.short.get(long);
    if (short === undefined) this.short.set(long, (short = `alike ${this.short.size}`));
    return short;
  }
}

const known = new WeakMap<Exchange, Map<string, WeakMap<Layer, LiteralGroup[]>>>();

/**
 * The strings that stand in a dialling context, those that lead to phones which take calls alike as one. What is named in the
 * situation or in `apart` stands alone.
 */
export function literalGroups(
  exchange: Exchange,
  { emergency, objects }: DialContext,
  situation: Situation,
  apart: readonly string[],
): readonly LiteralGroup[] {
  const forms = new Map((emergency.rules as Literal[]).map((rule) => [stringOf(rule), rule]));
  const first = [...forms].map(([dial, literal]): LiteralGroup => ({ dial, literal, other: null }));
  const ofExchange = known.get(exchange) ?? new Map<string, WeakMap<Layer, LiteralGroup[]>>();
  known.set(exchange, ofExchange);
  const name = JSON.stringify([situation, apart]);
  const ofName = ofExchange.get(name) ?? new WeakMap<Layer, LiteralGroup[]>();
  ofExchange.set(name, ofName);
  let groups = ofName.get(objects);
  if (!groups) ofName.set(objects, (groups = grouped(exchange, objects, new Set([...namesIn(situation), ...apart]))));
  return [...first, ...groups.filter((g) => !forms.has(g.dial))];
}

function grouped(exchange: Exchange, objects: Layer, named: ReadonlySet<string>): LiteralGroup[] {
  const byKey = new Map<string, LiteralGroup>();
  const seen = new Set<string>();
  const out: LiteralGroup[] = [];
  for (const literal of objects.rules as Literal[]) {
    const dial = stringOf(literal);
    if (seen.has(dial)) continue;
    seen.add(dial);
    const phone = literal.type === 'destination' && literal.kind === 'extension' ? literal.id : null;
    const key = phone === null ? null : takesCallsAs(exchange, phone, named);
    const group = key === null ? undefined : byKey.get(`${key} ${dial.length}`);
    if (group) group.other ??= dial;
    else {
      const made = { dial, literal, other: null };
      out.push(made);
      if (key !== null) byKey.set(`${key} ${dial.length}`, made);
    }
  }
  return out;
}
