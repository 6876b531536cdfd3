import { fromE164, readText } from '../numbers';
import type { Caller, Exchange } from '../routing';

export type CallerResult = { ok: true; caller: Caller; site: string | null } | { ok: false; sentence: string };

/**
 * Reads who calls: extension digits, `trunk:ID` (with the calling number beside it), `outside:NUMBER`, `withheld`, an
 * outside number, or the name of a person or extension. `calling` is only for `trunk:`.
 */
export function readCaller(text: string, exchange: Exchange, calling: string | null = null): CallerResult {
  const words = text.trim();
  const [head, rest] = splitOnce(words, ':');
  if (rest !== null && head === 'trunk') {
    const trunk = exchange.trunks.get(rest);
    return trunk
      ? { ok: true, caller: { type: 'trunk', id: rest, calling }, site: trunk.site }
      : unknown(`no trunk has the id ${rest}`);
  }
  if (rest !== null && head === 'outside') return outside(rest, exchange);
  if (rest !== null && head === 'device')
    return unknown(`no device has the MAC address ${rest}: the plan knows extensions only`);
  if (words.toLowerCase() === 'withheld' || words.toLowerCase() === 'outside')
    return { ok: true, caller: { type: 'outside', calling: null }, site: null };
  const compact = words.replace(/\s/g, '');
  const found = exchange.plan.extensions.filter((e) => e.digits === compact);
  if (found.length === 1) return { ok: true, caller: { type: 'extension', id: found[0]!.id }, site: found[0]!.site };
  if (found.length > 1) return unknown(`${compact} is at several sites; write the site code in front`);
  const coded = exchange.plan.extensions.find(
    (e) => `${exchange.sites.get(e.site)!.siteCode ?? ''}${e.digits}` === compact,
  );
  if (coded) return { ok: true, caller: { type: 'extension', id: coded.id }, site: coded.site };
  if (/^[+0]/.test(compact) && /^\+?[0-9()\-./]+$/.test(compact)) return outside(words, exchange);
  if (/^[0-9]+$/.test(compact)) return unknown(`no extension has the digits ${compact}`);
  return byName(words, exchange);
}

function outside(text: string, exchange: Exchange): CallerResult {
  const first = exchange.plan.sites[0];
  const place = first ? exchange.places.get(first.id)! : { country: 'GB', area: null, additions: [] };
  const number = readText(text, place);
  if (!number.e164) return unknown(number.why ?? `${text} is no outside number`);
  return { ok: true, caller: { type: 'outside', calling: fromE164(number.e164, place.additions).e164 }, site: null };
}

function byName(words: string, exchange: Exchange): CallerResult {
  const wanted = fold(words);
  if (wanted === '') return unknown('nobody is named');
  const people = new Map(exchange.plan.people.map((p) => [p.id, p.name]));
  const names = exchange.plan.extensions.map((e) => ({
    extension: e,
    names: [e.name, (e.person && people.get(e.person)) || ''].map(fold),
  }));
  const exact = names.filter((n) => n.names.includes(wanted));
  const found =
    exact.length > 0
      ? exact
      : names.filter((n) =>
          n.names.some((s) => s.split(' ').some((part) => part.startsWith(wanted)) || s.startsWith(wanted)),
        );
  if (found.length === 1)
    return { ok: true, caller: { type: 'extension', id: found[0]!.extension.id }, site: found[0]!.extension.site };
  if (found.length === 0) return unknown(`nobody and no phone is called “${words.slice(0, 40)}”`);
  const some = found.slice(0, 3).map((n) => `${n.extension.digits} ${n.extension.name}`);
  return unknown(`“${words}” fits ${found.length} phones: ${some.join(', ')}${found.length > 3 ? ' …' : ''}`);
}

/** Letters without marks, small, for finding names. */
export function fold(text: string): string {
  return text
    .normalize('NFKD')
    .replace(/[\u0300-\u036f]/g, '')
    .toLowerCase()
    .trim();
}

function splitOnce(text: string, at: string): [string, string | null] {
  const i = text.indexOf(at);
  return i < 0 ? [text, null] : [text.slice(0, i), text.slice(i + 1)];
}

function unknown(what: string): CallerResult {
  return { ok: false, sentence: `${what.charAt(0).toUpperCase()}${what.slice(1)}.` };
}
