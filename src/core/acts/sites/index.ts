/** What a country proposes for a site, and what changing a site moves. */
import { z } from 'zod';
import { emergencyNumbersOf, internationalPrefixOf, showNumber } from '../../numbers';
import type { Plan, Site } from '../../plan';

export const siteProposalSchema = z.strictObject({
  country: z.string(),
  zones: z.array(z.string()),
  zone: z.string(),
  language: z.string(),
  emergency: z.array(z.string()),
  outsidePrefix: z.string(),
  /** the next free block of extension digits, as wide as those there are */
  range: z.strictObject({ from: z.string(), to: z.string() }).nullable(),
});
export type SiteProposal = z.output<typeof siteProposalSchema>;

/** Zones of a country from the runtime's own data (CLDR), the one of most people first where that is known. */
export function zonesOf(country: string): string[] {
  const locale = new Intl.Locale('und', { region: country }) as Intl.Locale & {
    getTimeZones?: () => string[];
    timeZones?: string[];
  };
  return locale.getTimeZones?.() ?? locale.timeZones ?? [];
}

/** The language most used in a country (CLDR likely subtags). */
export function languageOf(country: string): string {
  return new Intl.Locale('und', { region: country }).maximize().language ?? 'en';
}

/** Countries whose capital is not the first of their zones in the data. */
const MAIN_ZONES: Record<string, string> = {
  US: 'America/New_York',
  CA: 'America/Toronto',
  AU: 'Australia/Sydney',
  BR: 'America/Sao_Paulo',
  MX: 'America/Mexico_City',
  RU: 'Europe/Moscow',
  ES: 'Europe/Madrid',
  PT: 'Europe/Lisbon',
  DE: 'Europe/Berlin',
  NZ: 'Pacific/Auckland',
  CL: 'America/Santiago',
  ID: 'Asia/Jakarta',
  CN: 'Asia/Shanghai',
  AR: 'America/Argentina/Buenos_Aires',
  UA: 'Europe/Kyiv',
};

/** What a new site in a country is proposed. */
export function proposeSite(plan: Plan, country: string): SiteProposal {
  const zones = zonesOf(country);
  const main = MAIN_ZONES[country];
  const neighbours = plan.sites.filter((s) => s.country === country);
  const most = plan.sites.map((s) => s.outsidePrefix).filter((p) => p !== null);
  return {
    country,
    zones,
    zone: neighbours[0]?.zone ?? (main && zones.includes(main) ? main : (zones[0] ?? 'UTC')),
    language: neighbours[0]?.language ?? languageOf(country),
    emergency: [...emergencyNumbersOf(country)],
    outsidePrefix: neighbours[0]?.outsidePrefix ?? most[0] ?? '',
    range: nextRange(plan),
  };
}

/** A block of digits after the last range, of the usual width, that no range and no digits touch. */
function nextRange(plan: Plan): SiteProposal['range'] {
  const ranges = plan.sites.flatMap((s) => s.ranges);
  const last = ranges
    .filter((r) => r.from.length === (ranges[0]?.from.length ?? 4))
    .sort((a, b) => (a.to < b.to ? -1 : 1))
    .at(-1);
  if (!last) return { from: '2000', to: '2099' };
  const width = last.from.length;
  const size = 10 ** (width - 2);
  const start = (Math.floor(Number(last.to) / size) + 1) * size;
  const to = start + size - 1;
  const free = plan.extensions.every(
    (e) => e.digits.length !== width || Number(e.digits) < start || Number(e.digits) > to,
  );
  return String(to).length === width && free ? { from: String(start), to: String(to) } : null;
}

/** What is otherwise between a site as it was and as it is: hours, numbers, dialling, emergency, in sentences. */
export function siteMoves(plan: Plan, before: Site, after: Site): string[] {
  const out: string[] = [];
  const extensions = plan.extensions.filter((e) => e.site === after.id).length;
  const numbers = plan.numbers.filter((n) => n.site === after.id);
  const phones = `${extensions} ${extensions === 1 ? 'extension' : 'extensions'}`;
  if (before.zone !== after.zone) {
    const hours = hoursOf(plan, after);
    out.push(
      `Times of ${phones} are read in ${after.zone}, were in ${before.zone}: mailbox announcements, “active from” of ${numbers.length} numbers, times asked at this site.`,
    );
    for (const h of hours)
      out.push(
        h.zone === after.zone
          ? `Hours “${h.name}”, which calls to this site ask, are read in ${h.zone}, the same as the site now.`
          : `Hours “${h.name}”, which calls to this site ask, stay in ${h.zone}; change them there if they were meant to move.`,
      );
  }
  if (before.country !== after.country) {
    const example = numbers[0];
    if (example)
      out.push(
        `${numbers.length} numbers are written as ${showNumber(example.e164, after.country)}, were ${showNumber(example.e164, before.country)}.`,
      );
    out.push(
      `Emergency numbers are ${emergencyNumbersOf(after.country).join(', ')}, were ${emergencyNumbersOf(before.country).join(', ')}.`,
    );
    const [a, b] = [internationalPrefixOf(before.country), internationalPrefixOf(after.country)];
    if (a !== b) out.push(`People dial ${b} for abroad, dialled ${a}.`);
    const foreign = after.emergencyTrunks.flatMap((id) => {
      const trunk = plan.trunks.find((t) => t.id === id);
      const where = plan.sites.find((s) => s.id === trunk?.site)?.country;
      return trunk && where !== after.country && trunk.site !== after.id ? [trunk.name] : [];
    });
    if (foreign.length > 0) out.push(`Emergency trunks ${foreign.join(', ')} are in another country.`);
  }
  if (before.area !== after.area)
    out.push(`Calls inside area ${after.area ?? 'none'} are local, were those inside ${before.area ?? 'none'}.`);
  if (before.outsidePrefix !== after.outsidePrefix)
    out.push(
      `${phones} dial ${after.outsidePrefix ?? 'nothing'} before an outside number, dialled ${before.outsidePrefix ?? 'nothing'}.`,
    );
  if (before.language !== after.language)
    out.push(`Prompts and mail are in ${after.language}, were in ${before.language}.`);
  if (before.ladder !== after.ladder) out.push(`Outside calls of ${phones} follow another ladder.`);
  return out;
}

/** Hours that calls to numbers of a site ask by their inbound routes. */
function hoursOf(plan: Plan, site: Site): { name: string; zone: string }[] {
  const mine = new Set(plan.numbers.filter((n) => n.site === site.id).map((n) => n.id));
  const routes = new Set(plan.inboundRoutes.filter((r) => r.numbers.some((n) => mine.has(n))).map((r) => r.id));
  const ids = new Set(plan.routeRules.filter((r) => routes.has(r.route)).map((r) => r.hours));
  return plan.hours.filter((h) => ids.has(h.id));
}
