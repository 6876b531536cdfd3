import {
  WRITTEN_FORMS,
  fromE164,
  kindFrom,
  mainCountryOf,
  readText,
  showNumber,
  writeNumber,
  type WrittenForm,
} from '@/core/numbers';
import { country as countrySchema } from '@/core/plan/facts/fields';
import { Refusal, flagsOf, need, noCommand, type Answer } from './answer';

export function number(args: string[]): Answer {
  const verb = args[0];
  if (verb !== 'read' && verb !== 'write') throw noCommand(verb, ['read', 'write'], 'number ');
  const { flags, rest } = flagsOf(args.slice(1), {
    flags: verb === 'read' ? ['country', 'area'] : ['as', 'country', 'area'],
    words: 1,
  });
  const [text] = rest;
  if (verb === 'write') return write(text, flags);
  if (text === undefined)
    throw new Refusal('argument-missing', 'TEXT', 'A number is needed: number read TEXT --country CC.');
  const { country, area } = placeOf(flags, need(flags, 'country', 'a country code such as GB'));
  const read = readText(text, { country, area, additions: [] });
  const value = {
    e164: read.e164,
    national: read.e164 ? showNumber(read.e164, read.country) : read.significant,
    country: read.country,
    kind: kindFrom(read, { country, area }),
    why: read.why,
  };
  return {
    exit: read.valid ? 0 : 1,
    value,
    text: `${value.e164 ?? value.national}  ${value.kind}${value.why ? `  ${value.why}` : ''}`,
  };
}

/** Digits of an E.164 number in a form, as seen from a country; without one, from the number's own. */
function write(text: string | undefined, flags: Map<string, string>): Answer {
  if (text === undefined)
    throw new Refusal('argument-missing', 'E164', 'A number is needed: number write +441632960100 --as national.');
  const number = fromE164(text, []);
  if (number.e164 === null) throw new Refusal('bad-number', 'E164', `${number.why}.`);
  const form = need(flags, 'as', WRITTEN_FORMS.join(', '));
  if (!(WRITTEN_FORMS as readonly string[]).includes(form))
    throw new Refusal('bad-form', '--as', `“${form}” is no form; ${WRITTEN_FORMS.join(', ')} are.`);
  const own = number.country ?? mainCountryOf(number.callingCode!);
  const given = flags.get('country') ?? own;
  if (given === null)
    throw new Refusal(
      'flag-missing',
      '--country',
      `+${number.callingCode} belongs to no country; --country is needed.`,
    );
  const { country, area } = placeOf(flags, given);
  const value = { digits: writeNumber(number, form as WrittenForm, country, area) };
  return { exit: 0, value, text: value.digits };
}

function placeOf(flags: Map<string, string>, given: string): { country: string; area: string | null } {
  const country = given.toUpperCase();
  const checked = countrySchema.safeParse(country);
  if (!checked.success)
    throw new Refusal('bad-country', '--country', `${country} ${checked.error.issues[0]!.message}.`);
  const area = flags.get('area') ?? null;
  if (area !== null && !/^[0-9]{1,6}$/.test(area))
    throw new Refusal(
      'bad-area',
      '--area',
      `“${area}” is no area; its digits without the national prefix are needed, such as 1632.`,
    );
  return { country, area };
}
