import { Metadata } from 'libphonenumber-js/max';
import type { CountryCode } from 'libphonenumber-js/max';
import { emergencyNumbersOf, internationalPrefixOf, nationalPrefixOf } from '../../numbers';
import type { WayOut } from './way-out';

const DIGITS = [...'0123456789'];

/** `023456789` as `[02-9]`. */
function setOf(digits: readonly string[]): string {
  const runs: string[] = [];
  for (const d of digits) {
    const last = runs.at(-1);
    if (last && Number(last.at(-1)) + 1 === Number(d)) runs[runs.length - 1] = last + d;
    else runs.push(d);
  }
  return `[${runs.map((r) => (r.length > 2 ? `${r[0]}-${r.at(-1)}` : r)).join('')}]`;
}

/** So many digits of any kind. */
const times = (least: number, most: number) =>
  most === 0 ? '' : least === most ? `x{${least}}` : `x{${least},${most}}`;

/** Digit maps of strings that begin with `head` and go on for `least` to `most` digits, but begin with none of `never`. */
function beginning(head: string, never: readonly string[], least: number, most: number): string[] {
  const near = never.filter((n) => n.startsWith(head));
  if (near.includes(head) || most < 0) return [];
  if (near.length === 0) return [head + times(least, most)];
  const free = DIGITS.filter((d) => !near.some((n) => n.startsWith(head + d)));
  return [
    ...(free.length > 0 ? [`${head}${setOf(free)}${times(least - 1, most - 1)}`] : []),
    ...DIGITS.filter((d) => !free.includes(d)).flatMap((d) => beginning(head + d, never, least - 1, most - 1)),
  ];
}

/**
 * Rules for national and international numbers as they are dialled in a country behind an outside prefix. Lengths are those of
 * its numbering plan (ITU-T E.164 lists, by libphonenumber); nothing begins with an emergency number, so none of them waits.
 */
export function waysOut(country: string, outsidePrefix: string): WayOut[] {
  const metadata = new Metadata();
  metadata.selectNumberingPlan(country as CountryCode);
  const lengths = (
    metadata as unknown as { numberingPlan: { possibleLengths(): number[] } }
  ).numberingPlan.possibleLengths();
  const [least, most] = [Math.max(5, Math.min(...lengths)), Math.max(...lengths)];
  const [np, ip] = [nationalPrefixOf(country), internationalPrefixOf(country)];
  const never = [...emergencyNumbersOf(country), ip];
  const withPrefix = np === '' ? [] : [`${np}[1-9]${times(least - 1, most - 1)}`];
  // Where the prefix is optional (North America) numbers are dialled without it too; where there is none, only so.
  const without =
    np === '' ? beginning('', never, least, most) : np === '1' ? beginning('', [...never, '0', '1'], least, most) : [];
  const behind = (maps: readonly string[]) => maps.map((m) => outsidePrefix + m).join('|');
  return [
    {
      name: 'National and mobile',
      map: behind([...withPrefix, ...without]),
      strip: outsidePrefix.length,
      reading: 'national',
    },
    {
      name: 'International',
      map: behind([`${ip}[1-9]x{6,13}`]),
      strip: outsidePrefix.length + ip.length,
      reading: 'international',
    },
  ];
}
