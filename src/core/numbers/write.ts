import { parsePhoneNumberFromString } from 'libphonenumber-js/max';
import type { OutsideNumber } from './number';
import { callingCodeOf, internationalPrefixOf, nationalPrefixOf } from './read';
import { WRITTEN_FORMS } from './written-forms';

/** The forms in which a trunk may want digits (ENGINE E5). */
export { WRITTEN_FORMS };
export type WrittenForm = (typeof WRITTEN_FORMS)[number];

/** Digits of a number in a form, as seen from a country and area. Short and private numbers stay as they are. */
export function writeNumber(number: OutsideNumber, form: WrittenForm, country: string, area: string | null): string {
  if (number.e164 === null || form === 'private') return number.significant;
  // Countries that share a calling code dial each other as if at home (ITU-T E.164, shared codes such as +1).
  const home = number.callingCode === callingCodeOf(country);
  const abroad = () => `${internationalPrefixOf(country)}${number.e164!.slice(1)}`;
  switch (form) {
    case 'plus':
      return number.e164;
    case 'digits':
      return number.e164.slice(1);
    case 'significant':
      return home ? number.significant : abroad();
    case 'subscriber':
      if (home && area && number.significant.startsWith(area) && number.significant.length > area.length)
        return number.significant.slice(area.length);
      return home ? nationalPrefixOf(country) + number.significant : abroad();
    case 'national':
      return home ? nationalPrefixOf(country) + number.significant : abroad();
  }
}

/** An E.164 number in the international form of ITU-T E.123: `+44 1632 960150`. */
export function spacedNumber(e164: string): string {
  return showNumber(e164, null);
}

/** An E.164 number spaced for reading (ITU-T E.123): national form where its calling code is, international form elsewhere. */
export function showNumber(e164: string, country: string | null): string {
  const parsed = parsePhoneNumberFromString(e164);
  if (!parsed) return e164;
  // Countries that share a calling code write each other's numbers as if at home, as they dial them.
  const home = country !== null && parsed.countryCallingCode === callingCodeOf(country);
  return home ? parsed.formatNational() : parsed.formatInternational();
}
