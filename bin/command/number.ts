import { kindFrom, readText, showNumber } from '@/core/numbers';
import { country as countrySchema } from '@/core/plan';
import { Refusal, flagsOf, need, type Answer } from './answer';

export function number(args: string[]): Answer {
  const { flags, rest } = flagsOf(args);
  const [verb, text] = rest;
  if (verb !== 'read')
    throw new Refusal('no-such-command', 'command', `“number ${verb ?? ''}” is no command; read is.`);
  if (text === undefined)
    throw new Refusal('argument-missing', 'TEXT', 'A number is needed: number read TEXT --country CC.');
  const country = need(flags, 'country', 'a country code such as GB').toUpperCase();
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
