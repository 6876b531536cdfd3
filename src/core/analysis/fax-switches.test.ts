import { describe, expect, it } from '@jest/globals';
import { lanternfold } from '../../../demo/lanternfold';
import { readPlan } from '../plan';
import { compile } from '../routing';
import { problemsOf } from '.';

type Draft = ReturnType<typeof lanternfold>;

/** What is said of time switches for fax after the demo was changed. */
function said(change: (plan: Draft) => void): string[] {
  const document = structuredClone(lanternfold());
  change(document);
  const read = readPlan(document);
  if (!read.ok) throw new Error(JSON.stringify(read.errors));
  return problemsOf(compile(read.plan))
    .filter((p) => p.type === 'fax-switch-speaks' || p.type === 'fax-way-speaks')
    .map((p) => `${p.severity} ${p.type} ${p.object.id}`);
}

const manifests = (plan: Draft) => plan.timeSwitches!.find((s) => s.id === 'customs-manifests')!;

describe('a time switch for fax', () => {
  it('is silent in the demo, by day and by night', () => expect(said(() => undefined)).toEqual([]));

  it.each([
    ['a directory', (plan: Draft) => void (manifests(plan).open = 'staff-by-name')],
    ['an announcement that plays something', (plan: Draft) => void (manifests(plan).closed = 'sailing-status')],
    ['a mailbox', (plan: Draft) => void (manifests(plan).closed = 'm-lost-property')],
    ['a person, whose mailbox greets', (plan: Draft) => void (manifests(plan).open = 'e-2105')],
    [
      'another switch that leads to a mailbox',
      (plan: Draft) => {
        plan.timeSwitches!.push({
          id: 'other',
          name: 'Other',
          site: 'north-quay',
          open: 'fax-hamburg',
          closed: 'm-2000',
        });
        manifests(plan).open = 'other';
      },
    ],
    [
      'a fax phone with a mailbox',
      (plan: Draft) => void (plan.extensions!.find((e) => e.id === 'e-2171')!.mailbox = 'm-2000'),
    ],
  ])('may not lead to %s', (_what, change) => {
    expect(said(change)).toContain('error fax-switch-speaks customs-manifests');
  });

  it('may not be led to by something that speaks first', () =>
    expect(
      said((plan) => void (plan.announcements!.find((a) => a.id === 'storm-told')!.leadsTo = 'customs-manifests')),
    ).toEqual(['error fax-way-speaks customs-manifests']));

  it('may lead anywhere once it is not for fax', () =>
    expect(
      said((plan) => {
        manifests(plan).fax = false;
        manifests(plan).open = 'staff-by-name';
      }),
    ).toEqual([]));
});
