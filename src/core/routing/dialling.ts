import { DIALLED_KINDS } from '../plan';
import { automatonOfLiterals, determinise, positionsOf } from '../digits';
import { shortNumbersOf } from '../numbers';
import { numberSpaceOf, objectsOf, type Extension, type FeatureCode, type Site } from '../plan';
import type { DialContext, DialRule, Layer } from '../exchange/context';
import { isFor, ladderOf, type Exchange } from '../exchange/exchange';
import type { CompiledRung } from '../exchange/rung';

/** The dialling context of a phone, made once for each group of phones that share it. */
export function contextOf(exchange: Exchange, phone: Pick<Extension, 'person' | 'site'>): DialContext {
  const site = exchange.sites.get(phone.site)!;
  const ladder = ladderOf(exchange, site);
  const mask = ladder.map((r) => (isFor(exchange, r.rung, phone) ? '1' : '0')).join('');
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
      ladder: layer(`ladder ${site.ladder ?? ''} ${mask}`, () => ladderLayer(ladder.filter((_, i) => mask[i] === '1'))),
    };
    exchange.contexts.set(key, context);
  }
  return context;
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
      const forms = [...(own ? [o.digits] : []), ...(space !== 'organisation' && code ? [code + o.digits] : [])];
      return forms.map((digits) =>
        kind === 'featureCode'
          ? { type: 'feature', code: o as FeatureCode, digits }
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
