import type { CallParty, CallRow } from '@/contract/records';
import type { Actor } from '../access/rights';
import type { Row } from '../db/pool';
import { ask } from '../engine';
import type { CallName } from '../engine/questions/records';
import { keyOf } from './find';
import { callSightOf, masked, readable, seesNumber, type CallSight } from './sight';

/* Rows of calls as their reader sees them: things by their names now, numbers that are not to be seen without their figures. */

/** The columns that a row in words is made of. */
export const ROW_COLUMNS =
  'started, id, answered, ended, way, site, `number`, phone, other, calling_delivered, called_delivered, called_read, trunk, outcome, end_kind, end_id, end_digits, end_label, answered_by, queue, q850, missed, erased';

const text = (v: unknown): string | null => v as string | null;

/** Ids that a row names. */
export const idsOf = (r: Row): string[] =>
  [r.phone, r.trunk, r.end_id, r.answered_by, r.queue, r.site, r.called_delivered].filter(
    (v): v is string => v !== null,
  );

/** Rows in words, in their order. */
export async function callRows(reader: Actor, rows: readonly Row[]): Promise<CallRow[]> {
  const names = await ask('callNames', { reader, ids: rows.flatMap(idsOf) });
  const sight = callSightOf(reader);
  return rows.map((r) => rowInWords(r, { names, sight }));
}

type Names = Record<string, CallName>;

/** By which names a record is told, and to whom. */
export interface Telling {
  names: Names;
  sight: CallSight;
}

/** Something by its id as it is called now; what the plan has no more, by what the record calls it. */
export function partyNamed(
  { names, sight }: Telling,
  id: string | null,
  kind: string,
  otherwise: string | null,
): CallParty | null {
  if (id === null) return otherwise === null ? null : { kind, id: null, label: otherwise };
  const known = names[id];
  if (known) return plain(known);
  return { kind, id: null, label: sight.gone ? otherwise || id : 'not there any more' };
}

const plain = ({ kind, id, label }: CallName): CallParty => ({ kind, id, label });

/** What stands where nobody is told: erased, or withheld by the caller. */
const nobody = (erased: boolean): CallParty => ({ kind: 'caller', id: null, label: erased ? 'erased' : 'withheld' });

export function rowInWords(r: Row, telling: Telling): CallRow {
  const { sight } = telling;
  const [started, ended, answered] = [r.started as Date, r.ended as Date, r.answered as Date | null];
  const erased = r.erased === 1;
  const other = text(r.other);
  const shown = other === null ? null : seesNumber(sight, text(r.site)) ? readable(other) : masked(other);
  const outside: CallParty = shown === null ? nobody(erased) : { kind: 'caller', id: null, label: shown };
  const inward = r.way === 'in';
  const phone = partyNamed(telling, text(r.phone), 'extension', erased ? 'erased' : null) ?? nobody(erased);
  const dialled = text(r.called_delivered) ?? '';
  const to: CallParty = inward
    ? { kind: 'number', id: null, label: readable(text(r.number) ?? dialled) }
    : r.way === 'out'
      ? outside
      : (partyNamed(telling, dialled || null, 'extension', dialled) ?? nobody(erased));
  const seconds = (from: Date, until: Date) => (until.getTime() - from.getTime()) / 1000;
  return {
    key: keyOf(r),
    started: started.toISOString(),
    way: r.way as CallRow['way'],
    from: inward ? outside : phone,
    to,
    outcome: r.outcome as CallRow['outcome'],
    end: endInWords(r, telling, outside),
    answeredBy: partyNamed(telling, text(r.answered_by), 'extension', null),
    answered: answered !== null,
    missed: r.missed === 1,
    waited: seconds(started, answered ?? ended),
    talked: answered === null ? 0 : seconds(answered, ended),
    trunk: partyNamed(telling, text(r.trunk), 'trunk', null),
    queue: partyNamed(telling, text(r.queue), 'queue', null),
    cause: r.q850 as number | null,
    erased,
  };
}

function endInWords(r: Row, telling: Telling, outside: CallParty): CallParty | null {
  const kind = text(r.end_kind);
  if (kind === null) return null;
  if (kind === 'outside') return { ...outside, kind: 'outside' };
  const label = text(r.end_label) || text(r.end_digits);
  return (
    partyNamed(telling, text(r.end_id), kind, label) ?? {
      kind,
      id: null,
      label: r.erased === 1 ? 'erased' : 'not known',
    }
  );
}
