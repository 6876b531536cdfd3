import { DIALLED_KINDS } from '../plan';
import { automatonOfLiterals, determinise, positionsOf } from '../digits';
import { shortNumbersOf } from '../numbers';
import { numberSpaceOf, objectsOf, type ServiceCode, type Rung, type Site } from '../plan';
import type { DialContext, DialRule, Layer } from '../exchange/context';
import { isFor, ladderOf, type Exchange } from '../exchange/exchange';
import { hoursNow } from '../exchange/hours-now';
import type { Situation } from '../exchange/situation';
import type { Caller } from './leg';
import type { CompiledRung } from '../exchange/rung';

/** The moment at which dialling starts, for rules that have hours (ENGINE E6). */
export interface DialMoment {
  at: number;
  situation: Situation;
}

/** Whether a rule has hours that are closed at a moment; never where no moment is asked about. */
export function isClosed(exchange: Exchange, rung: Pick<Rung, 'hours'>, moment: DialMoment | null): boolean {
  return rung.hours !== null && moment !== null && !hoursNow(exchange, moment.situation, rung.hours, moment.at).open;
}

/**
 * The dialling context of a phone at a moment, made once for each group of phones that share it. Without a moment every rule
 * with hours is taken as open. `caller` is whom the *for* lists of rules look at.
 */
export function contextOf(
  exchange: Exchange,
  caller: Caller,
  moment: DialMoment | null = null,
  siteId = caller.site,
): DialContext {
  const site = exchange.sites.get(siteId)!;
  const ladder = ladderOf(exchange, site);
  const fits = ({ rung }: CompiledRung) => isFor(exchange, rung, caller) && !isClosed(exchange, rung, moment);
  let mask = '';
  for (const rung of conditional(ladder)) mask += fits(rung) ? '1' : '0';
  const key = `${site.id} ${mask}`;
  let context = exchange.contexts.get(key);
  if (!context) {
    const layer = (name: string, make: () => Layer): Layer => {
      let known = exchange.layers.get(name);
      if (!known) exchange.layers.set(name, (known = make()));
      return known;
    };
    const space = numberSpaceOf(exchange.plan, site.id);
    context = {
      site,
      emergency: layer(`emergency ${site.country} ${site.outsidePrefix ?? ''}`, () =>
        literalLayer(emergencyForms(exchange, site)),
      ),
      objects: layer(`objects ${space}`, () => literalLayer(dialableFrom(exchange, site))),
      ladder: layer(`ladder ${site.ladder ?? ''} ${mask}`, () => ladderLayer(ladder.filter(fits))),
    };
    exchange.contexts.set(key, context);
  }
  return context;
}

const conditions = new WeakMap<readonly CompiledRung[], readonly CompiledRung[]>();

/** The rules of a ladder that do not fit everybody at any time; found once. */
function conditional(ladder: readonly CompiledRung[]): readonly CompiledRung[] {
  let found = conditions.get(ladder);
  if (!found) {
    found = ladder.filter(
      ({ rung }) => rung.hours !== null || rung.forPeople.length + rung.forTeams.length + rung.forSites.length > 0,
    );
    conditions.set(ladder, found);
  }
  return found;
}

type LiteralRule = Exclude<DialRule, { type: 'rung' }>;

function literalLayer(rules: LiteralRule[]): Layer {
  return { rules, automaton: automatonOfLiterals(rules.map((r) => (r.type === 'emergency' ? r.form : r.digits))) };
}

function ladderLayer(ladder: CompiledRung[]): Layer {
  return {
    rules: ladder.map((compiled) => ({ type: 'rung', compiled })),
    automaton: determinise(ladder.map((r) => positionsOf(r.map.map))),
  };
}

/** Emergency numbers of the site's country, bare and behind its outside prefix (ENGINE E4.1). */
export function emergencyForms(
  exchange: Pick<Exchange, 'places'>,
  site: Site,
): Extract<DialRule, { type: 'emergency' }>[] {
  const short = exchange.places.get(site.id)?.short ?? shortNumbersOf(site.country);
  const all = short.emergency.map((number) => ({ number, test: false }));
  if (short.emergencyTest) all.push({ number: short.emergencyTest, test: true });
  return all.flatMap(({ number, test }) =>
    [number, ...(site.outsidePrefix ? [site.outsidePrefix + number] : [])].map((form) => ({
      type: 'emergency' as const,
      number,
      form,
      test,
    })),
  );
}

/** What has digits, as phones of a site dial it: bare in its own number space, behind a site code in others. */
function dialableFrom(exchange: Exchange, site: Site): LiteralRule[] {
  const { plan } = exchange;
  const space = numberSpaceOf(plan, site.id);
  return DIALLED_KINDS.flatMap((kind) =>
    objectsOf(plan, kind).flatMap((o): LiteralRule[] => {
      if (!('digits' in o) || o.digits === null) return [];
      const own = numberSpaceOf(plan, o.site) === space;
      const code = exchange.sites.get(o.site)!.siteCode;
      // Service codes belong to the space; everything else is reached behind a site code as well, the own one too (ENGINE E4).
      const coded = space !== 'organisation' && code && kind !== 'serviceCode' ? [code + o.digits] : [];
      const forms = [...(own ? [o.digits] : []), ...coded];
      return forms.map((digits) =>
        kind === 'serviceCode'
          ? { type: 'service', code: o as ServiceCode, digits }
          : { type: 'destination', kind, id: o.id, digits },
      );
    }),
  );
}

/**
 * Emergency forms that dialling digit by digit can reach: an emergency number is taken at its last digit, so a form that
 * begins with another never gets that far (ENGINE E3).
 */
export function reachableForms(exchange: Pick<Exchange, 'places'>, site: Site): string[] {
  const forms = [...new Set(emergencyForms(exchange, site).map((f) => f.form))];
  return forms.filter((form) => !forms.some((other) => other !== form && form.startsWith(other)));
}
