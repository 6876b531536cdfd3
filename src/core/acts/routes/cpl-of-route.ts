import type { CplPlace, CplRoute } from '../../formats';
import { writeCpl } from '../../formats';
import { KINDS } from '../../plan';
import { outcomeAt, type Exchange, type Situation } from '../../routing';

const DAY_MS = 86_400_000;
/** Single days are spelt out from a month ago to two years ahead. */
const [BACK, AHEAD] = [31, 740];
/** A domain that belongs to nobody (RFC 6761): the reader puts the own one in its place. */
export const CPL_DOMAIN = 'internal.invalid';

/** An inbound route as a CPL script (RFC 3880) with a sentence for everything that CPL can't say. The route must exist. */
export function cplOfRoute(
  exchange: Exchange,
  routeId: string,
  { now, situation }: { now: number; situation: Situation },
): { text: string; notCarried: string[] } {
  const route = exchange.plan.inboundRoutes.find((r) => r.id === routeId)!;
  const all = exchange.routeRules.get(routeId) ?? [];
  const ends = new Ends(exchange, now, situation);
  const rules: CplRoute['rules'] = all.flatMap((r) => {
    if (r.when === 'notice') return [];
    return [{ hours: exchange.hours.get(r.hours)!.hours, when: r.when, to: ends.place(r.leadsTo) }];
  });
  const otherwise = route.leadsTo ? ends.place(route.leadsTo) : null;
  const today = Math.floor(now / DAY_MS);
  const forSome =
    route.callingMap !== null ||
    route.callingCountries.length > 0 ||
    route.callingNumbers.length > 0 ||
    route.callingWithheld;
  const conditions = [
    forSome ? 'Only from some callers: a script can’t leave the others to the next route.' : '',
    route.trunk !== null ? 'Only by one trunk: CPL knows none.' : '',
    route.calledMap !== null ? 'The map of called numbers: a script belongs to one address.' : '',
    route.dialledExtension ? 'Led to the extension that was dialled: a script names its ends.' : '',
    ...all
      .filter((r) => r.when === 'notice')
      .map((r) => `The rule for notices of ${exchange.hours.get(r.hours)!.name}: CPL has none.`),
    situation.notices?.some((n) => n.of === routeId || all.some((r) => r.hours === n.hours))
      ? 'Notices that hold now: they end by themselves.'
      : '',
  ];
  const text = writeCpl({
    rules,
    otherwise,
    places: ends.places,
    domain: CPL_DOMAIN,
    fromDay: today - BACK,
    toDay: today + AHEAD,
  });
  return { text, notCarried: [...conditions.filter(Boolean), ...ends.notCarried] };
}

/** The ends of a route in an order in which what one leads on to comes before it. */
class Ends {
  readonly places: CplPlace[] = [];
  readonly notCarried = new Set<string>();
  private readonly open = new Set<string>();

  constructor(
    private readonly exchange: Exchange,
    private readonly now: number,
    private readonly situation: Situation,
  ) {}

  /** Writes down a place, and tells its key. */
  place(id: string): string {
    if (this.places.some((p) => p.key === id) || this.open.has(id)) return id;
    this.open.add(id);
    this.places.push(this.placed(id));
    return id;
  }

  private placed(id: string): CplPlace {
    const { kind, object } = this.exchange.destinations.get(id)!;
    if (kind === 'extension') {
      const e = this.exchange.extensions.get(id)!;
      const forwards = this.situation.forwarding?.filter((f) => f.extension === id) ?? [];
      const to = (when: string) => {
        const found = forwards.find((f) => f.when === when);
        return found ? this.forwarded(found.to) : null;
      };
      const always = to('always');
      if (always) this.notCarried.add(`${e.name} forwards every call: the script rings ${e.digits} first.`);
      if (e.reachPlan) this.notCarried.add(`The reach plan of ${e.name}: only its phone rings.`);
      const box = e.mailbox ? this.place(e.mailbox) : null;
      return {
        key: id,
        user: e.digits,
        rings: { seconds: e.ringSeconds, noAnswer: to('no answer') ?? box, busy: to('busy') ?? box },
      };
    }
    if (kind === 'outsideNumber') {
      const { e164 } = outcomeAt(this.exchange, id, this.now, {});
      return { key: id, user: e164 ?? id, rings: null };
    }
    if (kind !== 'mailbox' && kind !== 'fax' && kind !== 'conference')
      this.notCarried.add(`What ${object.name} (${KINDS[kind].word}) does with callers: the script sends them there.`);
    const digits = 'digits' in object ? object.digits : null;
    return { key: id, user: digits ?? id, rings: null };
  }

  private forwarded(digits: string): string {
    const key = `forward ${digits}`;
    if (!this.places.some((p) => p.key === key)) this.places.push({ key, user: digits, rings: null });
    return key;
  }
}
