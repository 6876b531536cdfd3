import { fieldsOf, type FieldFacts } from '../../plan';
import type { SheetKind } from '../../plan/facts/sheet-kinds';
import { choiceWords } from '../../plan/facts/choice-words';
import { nameKey, readYesNo, right, wrong, yesNo, type Cell } from '../import/cells';
import { readDates, readExceptions, writeDates, writeExceptions } from './dates';
import { quoted, splitList, unquoted } from './lists';
import type { Names } from './names';

/** One column of a sheet: a field of its kind, written as text and read back. */
export interface SheetColumn {
  key: string;
  title: string;
  note: string;
  write: (value: unknown, names: Names) => string;
  read: (text: string, names: Names) => Cell<unknown>;
}

/** Structures that have a text of their own. */
const STRUCTURES: Record<string, Pick<SheetColumn, 'write' | 'read'>> = {
  exceptions: { write: (value) => writeExceptions(value as never), read: readExceptions },
  dates: { write: (value) => writeDates(value as never), read: readDates },
  callingCountries: plainList(),
  callingNumbers: plainList(),
};

const columns = new Map<SheetKind, SheetColumn[]>();

/** The columns of a kind's sheet, in the order of its fields; what stands for an object besides is never among them. */
export function columnsOf(kind: SheetKind): SheetColumn[] {
  let made = columns.get(kind);
  if (!made) {
    made = fieldsOf(kind).flatMap((fact): SheetColumn[] => {
      const how = howOf(fact);
      return how ? [{ key: fact.field, title: fact.title ?? fact.field, note: fact.description ?? '', ...how }] : [];
    });
    columns.set(kind, made);
  }
  return made;
}

/** The columns of which a sheet has at least one: they say which object a row is about. */
export const keysOf = (kind: SheetKind): readonly [string, ...string[]] =>
  kind === 'routeRule' ? ['route'] : ['name', 'digits'];

function howOf(fact: FieldFacts): Pick<SheetColumn, 'write' | 'read'> | null {
  if (fact.field === 'id') return null;
  if (fact.ref) return fact.many ? refList(fact) : oneRef(fact);
  if (STRUCTURES[fact.field]) return STRUCTURES[fact.field]!;
  if (fact.type === 'json') return null;
  if (fact.type === 'boolean') return { write: (value) => yesNo(Boolean(value)), read: readYesNo };
  if (fact.choices) return choice(fact.choices);
  if (fact.type === 'number')
    return {
      write: (value) => String(value),
      read: (text) =>
        /^-?[0-9]+(\.[0-9]+)?$/.test(text.trim()) ? right(Number(text)) : wrong(`“${text}” is no figure.`),
    };
  return {
    write: (value) => (value === null ? '' : String(value)),
    read: (text) => right(text === '' && fact.nullable ? null : text),
  };
}

function choice(choices: readonly string[]): Pick<SheetColumn, 'write' | 'read'> {
  return {
    write: (value) => choiceWords(String(value)),
    read: (text) => {
      const found = choices.find((c) => [c, choiceWords(c)].some((w) => nameKey(w) === nameKey(text)));
      return found ? right(found) : wrong(`“${text}” is none of ${choices.map(choiceWords).join(', ')}.`);
    },
  };
}

function oneRef({ ref, nullable }: FieldFacts): Pick<SheetColumn, 'write' | 'read'> {
  return {
    write: (value, names) => (value === null ? '' : names.written(ref!, String(value))),
    read: (text, names) => {
      if (text !== '') return names.read(ref!, text);
      return nullable ? right(null) : wrong('is empty.');
    },
  };
}

function refList({ ref }: FieldFacts): Pick<SheetColumn, 'write' | 'read'> {
  return {
    write: (value, names) => (value as string[]).map((id) => quoted(names.written(ref!, id))).join('; '),
    read: (text, names) => {
      const ids: string[] = [];
      for (const part of splitList(text)) {
        const found = names.read(ref!, unquoted(part));
        if (!found.ok) return found;
        ids.push(found.value);
      }
      return right(ids);
    },
  };
}

function plainList(): Pick<SheetColumn, 'write' | 'read'> {
  return {
    write: (value) => (value as string[]).map(quoted).join('; '),
    read: (text) => right(splitList(text).map(unquoted)),
  };
}
