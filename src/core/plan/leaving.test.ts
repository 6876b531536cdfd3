import { readFileSync } from 'node:fs';
import { describe, expect, it } from '@jest/globals';
import { parse } from 'yaml';
import { differences, integrityErrors, keyOf, leftWith, planWith, readPlan, without, type Changed, type Plan } from '.';

const read = readPlan(parse(readFileSync('demo/plan.yaml', 'utf8')));
if (!read.ok) throw new Error('the demo plan does not read');
const live = read.plan;

const left = (draft: Plan, ...chosen: string[]) =>
  leftWith(draft, differences(live, draft), new Set(chosen)).map((l) => ({
    key: keyOf(l.edit),
    because: l.because && keyOf(l.because),
  }));

/** What is left is live as it was; all the rest is as in the draft. */
function apart(draft: Plan, keys: readonly string[]): { plan: Plan; errors: number } {
  const all = differences(live, draft);
  const plan = without(
    draft,
    all.filter((d) => keys.includes(keyOf(d))),
  );
  const now = differences(live, plan).map(keyOf).sort();
  expect(now).toEqual(
    all
      .map(keyOf)
      .filter((k) => !keys.includes(k))
      .sort(),
  );
  return { plan, errors: integrityErrors(plan).length };
}

const edit = (kind: string, id: string, value: object | null) => ({ kind, id, value }) as unknown as Changed;
const mailbox = live.mailboxes[0]!;
const added = { ...mailbox, id: 'added-box', name: 'Added', digits: null };
const queue = live.queues[0]!;

describe('edits that are left for later', () => {
  it.each(['blockedLeadTo', 'withheldLeadTo'] as const)('what the organisation names in %s waits with it', (field) => {
    const led = { ...live.organisation, [field]: 'added-box' };
    const draft = planWith(live, [
      edit('mailbox', 'added-box', added),
      edit('organisation', 'organisation', led),
      edit('queue', queue.id, { ...queue, name: 'Another' }),
    ]);
    const found = left(draft, 'mailbox added-box');
    expect(found).toContainEqual({ key: 'organisation organisation', because: 'mailbox added-box' });
    expect(found).toHaveLength(2);
    expect(
      apart(
        draft,
        found.map((f) => f.key),
      ).errors,
    ).toBe(0);
    // The other way round: it is led there in live, and neither is any more in the draft.
    const before = planWith(live, [edit('mailbox', 'added-box', added), edit('organisation', 'organisation', led)]);
    const back = leftWith(live, differences(before, live), new Set(['organisation organisation']));
    expect(back.map((l) => keyOf(l.edit))).toEqual(['organisation organisation', 'mailbox added-box']);
  });

  it('an edit that others do not need is left alone', () => {
    const [one, other] = [live.extensions[0]!, live.extensions[1]!];
    const draft = planWith(live, [
      edit('extension', one.id, { ...one, name: 'One' }),
      edit('extension', other.id, { ...other, name: 'Other' }),
    ]);
    expect(left(draft, `extension ${one.id}`)).toEqual([{ key: `extension ${one.id}`, because: null }]);
    expect(apart(draft, [`extension ${one.id}`]).errors).toBe(0);
  });

  it('what names something new waits with it, and only then', () => {
    const phone = live.extensions.find((e) => e.kind === 'person')!;
    const draft = planWith(live, [
      edit('mailbox', added.id, added),
      edit('extension', phone.id, { ...phone, mailbox: added.id }),
    ]);
    expect(left(draft, 'mailbox added-box')).toEqual([
      { key: 'mailbox added-box', because: null },
      { key: `extension ${phone.id}`, because: 'mailbox added-box' },
    ]);
    // Without what follows, the plan would not be whole.
    expect(
      integrityErrors(
        without(
          draft,
          differences(live, draft).filter((d) => d.kind === 'mailbox'),
        ),
      ).length,
    ).toBe(1);
    expect(left(draft, `extension ${phone.id}`)).toHaveLength(1);
    expect(apart(draft, [`extension ${phone.id}`]).errors).toBe(0);
  });

  it('what comes back brings what it names, and its parts', () => {
    const attendant = live.attendants.find((a) => live.attendantKeys.some((k) => k.attendant === a.id))!;
    const keys = live.attendantKeys.filter((k) => k.attendant === attendant.id);
    const changed = { ...keys[0]!, silent: !keys[0]!.silent };
    const draft = planWith(live, [
      edit('attendant', attendant.id, { ...attendant, name: 'Renamed' }),
      edit('attendantKey', keys[0]!.id, changed),
    ]);
    expect(left(draft, `attendant ${attendant.id}`).map((l) => l.key)).toEqual([
      `attendant ${attendant.id}`,
      `attendantKey ${keys[0]!.id}`,
    ]);
    const gone = planWith(live, [
      edit('queue', queue.id, null),
      ...live.extensions.filter((e) => e.id === queue.agents?.[0]).map((e) => edit('extension', e.id, null)),
    ]);
    const names = left(gone, `queue ${queue.id}`).map((l) => l.key);
    expect(names[0]).toBe(`queue ${queue.id}`);
    expect(names.length).toBe(differences(live, gone).length);
  });
});
