import { inputErrors, type InputError } from '../plan';
import { callRecordSchema, type CallRecord } from './record';

export type RecordsRead = { ok: true; records: CallRecord[] } | { ok: false; errors: InputError[] };

/** Most errors that are told of one file. */
const MOST_ERRORS = 50;

/**
 * Reads records from JSON lines: one object a line; empty lines are passed over. An error says its line as `line 3.called`.
 * The same id twice is an error.
 */
export function readRecords(text: string): RecordsRead {
  const records: CallRecord[] = [];
  const errors: InputError[] = [];
  const seen = new Map<string, number>();
  for (const [i, line] of text.split('\n').entries()) {
    if (line.trim() === '' || errors.length >= MOST_ERRORS) continue;
    const at = `line ${i + 1}`;
    let value: unknown;
    try {
      value = JSON.parse(line);
    } catch {
      errors.push({ code: 'not-json', path: at, sentence: `Line ${i + 1} is no JSON object.` });
      continue;
    }
    const read = callRecordSchema.safeParse(value);
    if (!read.success) {
      errors.push(...inputErrors(read.error).map((e) => ({ ...e, path: e.path ? `${at}.${e.path}` : at })));
      continue;
    }
    const before = seen.get(read.data.id);
    if (before === undefined) records.push(read.data);
    else
      errors.push({
        code: 'id-twice',
        path: `${at}.id`,
        sentence: `Line ${before} has the id ${read.data.id} already.`,
      });
    seen.set(read.data.id, i + 1);
  }
  return errors.length > 0 ? { ok: false, errors: errors.slice(0, MOST_ERRORS) } : { ok: true, records };
}
