import { callingCodeOf, internationalPrefixOf, nationalPrefixOf, type NumberClass, type WrittenForm } from '../numbers';

/** How some digits become others: `put`, and behind it the digits without their first `drop`. */
export interface Rewriting {
  put: string;
  drop: number;
}

const AS_IT_IS: Rewriting = { put: '', drop: 0 };

/** The same without the first symbols of what comes out. */
function behead({ put, drop }: Rewriting, count: number): Rewriting {
  return count <= put.length ? { put: put.slice(count), drop } : { put: '', drop: drop + count - put.length };
}

const before = (head: string, { put, drop }: Rewriting): Rewriting => ({ put: head + put, drop });

/** One after the other: what `second` makes of what `first` makes. */
export function after(first: Rewriting, second: Rewriting): Rewriting {
  return before(second.put, behead(first, second.drop));
}

/** How numbers of a class are written for a trunk (ENGINE E5), from the digits that were read; as `writeNumber` writes one. */
export function writtenFrom(number: NumberClass, form: WrittenForm, country: string, area: string | null): Rewriting {
  if (!number.e164) return AS_IT_IS;
  const e164: Rewriting = { put: number.put, drop: number.drop };
  const code = callingCodeOf(country);
  const home = number.callingCode === code;
  const significant = () => behead(e164, 1 + (home ? code.length : 0));
  const abroad = () => before(internationalPrefixOf(country), behead(e164, 1));
  switch (form) {
    case 'plus':
      return e164;
    case 'digits':
      return behead(e164, 1);
    case 'private':
    case 'significant':
      return home ? significant() : abroad();
    case 'subscriber':
      if (home && area && number.areas.includes(code + area)) return behead(significant(), area.length);
      return home ? before(nationalPrefixOf(country), significant()) : abroad();
    case 'national':
      return home ? before(nationalPrefixOf(country), significant()) : abroad();
  }
}
