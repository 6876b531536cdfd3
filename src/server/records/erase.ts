import { recordHistory } from '../access/history';
import { Refused, demand, type Actor } from '../access/rights';
import { placeholders } from '../db/many';
import { change, reading, writing, type SqlValue } from '../db/pool';
import { ask } from '../engine';
import { addJob } from '../jobs/jobs';
import { Stopped, type Handler } from '../jobs/worker';
import { manyRows } from './heavy';
import { partitionsIn } from './partitions';
import { masked } from './sight';

/*
 * Taking somebody out of the call records: who it was, and with whom, goes; when, how long, by which trunk and how it ended stays, since
 * trunks and queues are sized by it and it names nobody. Calls for help stay whole: that they left, and from where, must be shown.
 */

export interface Whom {
  person: string;
  number: string;
}

/** What somebody is found by. */
interface Traces {
  label: string;
  /** phones of a person, by id and digits, and the numbers that are theirs alone */
  phones: string[];
  own: string[];
  /** an outside number, as it was read and as it may stand */
  outside: string[];
}

async function tracesOf(actor: Actor, { person, number }: Whom): Promise<Traces> {
  demand(actor, 'keepCalls');
  if (person !== '') return { outside: [], ...(await ask('phonesOf', { reader: actor, person })) };
  const { party } = await ask('callScope', { reader: actor, number, person: '', from: '', to: '' });
  if (!party || party.outside.length === 0)
    throw new Refused(422, 'not-outside', 'This is a number or phone of ours; a person is chosen by name.', 'number');
  return { label: number, phones: [], own: [], outside: party.outside };
}

const isIn = (column: string, list: readonly string[]): [string, SqlValue[]][] =>
  list.length > 0 ? [[`${column} IN ${placeholders(list.length)}`, [...list]]] : [];

/** Columns with an index, so that counting is quick. */
const found = ({ phones, own, outside }: Traces): [string, SqlValue[]][] => [
  ...['phone', 'answered_by', 'end_id'].flatMap((c) => isIn(c, phones)),
  ...isIn('`number`', own),
  ...isIn('other', outside),
];

/** Everywhere else that somebody may be named. */
const hidden = ({ phones, outside }: Traces): [string, SqlValue[]][] => [
  ...['agent', 'transferred_to', 'called_delivered'].flatMap((c) => isIn(c, phones)),
  ...phones.map((id): [string, SqlValue[]] => ['course LIKE ?', [`%"${id.replace(/[%_\\]/g, '\\$&')}"%`]]),
  ...['calling_read', 'called_read', 'shown', 'transferred_to'].flatMap((c) => isIn(c, outside)),
];

const either = (conditions: readonly [string, SqlValue[]][]) => ({
  sql: conditions.map(([sql]) => `(${sql})`).join(' OR ') || 'FALSE',
  values: conditions.flatMap(([, values]) => values),
});

/** How many records name somebody as caller, called or end, and how many of those are kept whole. */
export async function erasePreview(actor: Actor, whom: Whom): Promise<{ label: string; calls: number; kept: number }> {
  const traces = await tracesOf(actor, whom);
  const { sql, values } = either(found(traces));
  const [counted] = await manyRows<{ calls: number; kept: number | null }>(
    `SELECT COUNT(*) AS calls, SUM(emergency) AS kept FROM call_record WHERE erased = 0 AND (${sql})`,
    values,
  );
  return { label: traces.label, calls: Number(counted!.calls), kept: Number(counted!.kept ?? 0) };
}

/** Asks for an erasure. */
export async function startErasure(actor: Actor, whom: Whom): Promise<{ job: string }> {
  await tracesOf(actor, whom);
  return addJob(actor, 'erase-calls', { person: whom.person, number: whom.number });
}

/** What becomes of the columns of a record that names somebody. */
function changes({ phones, own }: Traces): { sql: string; values: SqlValue[] } {
  const parts: [string, SqlValue[]][] = [];
  const set = (column: string, list: readonly string[], to: string) => {
    for (const [sql, values] of isIn(column, list)) parts.push([`${column} = IF(${sql}, ${to}, ${column})`, values]);
  };
  // Columns are set from left to right, each seeing what was set before it: what depends on another comes first.
  for (const [sql, values] of isIn('end_id', phones)) {
    parts.push([`end_label = IF(${sql}, 'erased', end_label)`, values]);
    parts.push([`end_digits = IF(${sql}, NULL, end_digits)`, values]);
  }
  for (const [sql, values] of isIn('`number`', own)) parts.push([`phone = IF(${sql}, 'erased', phone)`, values]);
  for (const column of ['phone', 'answered_by', 'end_id'])
    set(column, phones, column === 'phone' ? "'erased'" : 'NULL');
  for (const column of ['agent', 'transferred_to']) set(column, phones, 'NULL');
  set('`number`', own, 'NULL');
  for (const id of phones) parts.push(['course = REPLACE(course, ?, ?)', [`"${id}"`, '"erased"']]);
  const gone = [
    'other',
    'calling_delivered',
    'calling_read',
    'called_delivered',
    'called_read',
    'shown',
    'pressed',
    'recording',
  ];
  for (const column of gone) parts.push([`${column} = NULL`, []]);
  parts.push(["end_label = IF(end_kind = 'outside', 'outside', end_label)", []]);
  parts.push(["end_digits = IF(end_kind = 'outside', NULL, end_digits)", []]);
  parts.push(['erased = 1', []]);
  return { sql: parts.map(([sql]) => sql).join(', '), values: parts.flatMap(([, values]) => values) };
}

/** What an outside caller left beside the records: messages, with their voice, and wishes to be called back. */
const eraseBeside = (numbers: readonly string[]): Promise<void> =>
  writing(async (c) => {
    for (const table of ['message', 'callback_request'])
      for (const [sql, values] of isIn('calling', numbers))
        await change(c, `DELETE FROM ${table} WHERE ${sql}`, values);
  });

/** Erases month by month; what was erased before a stop stays erased. */
export const eraseCalls: Handler = async (input, work) => {
  const traces = await tracesOf(work.actor, input as unknown as Whom);
  const named = either([...found(traces), ...hidden(traces)]);
  const set = changes(traces);
  const months = (await reading(partitionsIn)).map((p) => p.until);
  let erased = 0;
  const record = (stopped: boolean) =>
    writing((c) =>
      recordHistory(c, work.actor, {
        action: 'calls-erased',
        object: (input.person as string) || null,
        // Whoever is erased is named nowhere, not here either.
        of: input.person ? 'a person' : masked(traces.outside[0]!),
        detail: {
          calls: erased,
          kept: 'calls for help; moments, trunks and ends of the others',
          ...(stopped ? { stopped: true } : {}),
        },
      }),
    );
  try {
    for (const [i, until] of months.entries()) {
      await work.onProgress(i, months.length, `${erased} records erased`);
      const from = months[i - 1] ?? '1000-01-01';
      const which = `started >= ? AND started < ? AND erased = 0 AND emergency = 0 AND (${named.sql})`;
      const means = [from, until ?? '9999-01-01', ...named.values];
      erased += await writing(async (c) => {
        // The voice goes with the name.
        await change(
          c,
          `DELETE recording FROM recording JOIN call_record ON started = call_started AND call_record.id = call_id WHERE ${which}`,
          means,
        );
        return change(c, `UPDATE call_record SET ${set.sql} WHERE ${which}`, [...set.values, ...means]);
      });
    }
  } catch (e) {
    if (!(e instanceof Stopped)) throw e;
    await record(true);
    throw new Stopped({ sentence: `Stopped: ${erased} records are erased. Begin again to erase the rest.`, erased });
  }
  await eraseBeside(traces.outside);
  await record(false);
  return { erased, label: traces.label };
};
