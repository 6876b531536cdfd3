import { describe, expect, it } from '@jest/globals';
import { readPlan, upgradeDocument } from '.';
import { endsPlan } from '../../../tests/support/ends-plan';

/* A document of version 3, in which calls could be led to web links. */

function withLinks(): Record<string, unknown> {
  const document = JSON.parse(JSON.stringify(endsPlan())) as Record<string, Record<string, unknown>[]>;
  const at = (list: string, id: string) => document[list]!.find((o) => o.id === id)!;
  document.webLinks = [
    {
      id: 'form',
      name: 'Order form',
      site: 'quay',
      digits: '5099',
      address: 'https://lanternfold.example/form',
      note: '',
    },
    { id: 'chat', name: 'Chat', site: 'quay', digits: null, address: 'https://lanternfold.example/chat', note: '' },
  ];
  at('numbers', 'n110').belongsTo = 'form';
  at(
    'attendantKeys',
    document.attendantKeys!.find((k) => k.attendant === 'menu' && k.key === '1')!.id as string,
  ).leadsTo = 'chat';
  at('routeRules', 'rr-open').leadsTo = 'form';
  at('presenceRules', 'p-meeting').outsideTo = 'chat';
  at('ringGroups', 'desk').noAnswer = 'form';
  (document.organisation as unknown as Record<string, unknown>).blockedLeadTo = 'chat';
  return { ...document, version: 3 };
}

describe('a document of version 3', () => {
  it('loses its web links, and what led to one leads nowhere and is named', () => {
    const upgraded = upgradeDocument(withLinks());
    if (!upgraded.ok) throw new Error('not upgraded');
    const { document, notes } = upgraded as { document: Record<string, Record<string, unknown>[]>; notes: string[] };
    expect(document.webLinks).toBeUndefined();
    expect(JSON.stringify(document)).not.toMatch(/"(form|chat)"/);
    const read = readPlan(document);
    expect(read.ok ? [] : read.errors).toEqual([]);
    const has = (list: string, id: string) => document[list]!.some((o) => o.id === id);
    expect(has('routeRules', 'rr-open')).toBe(false);
    expect(document.presenceRules!.find((r) => r.id === 'p-meeting')).toMatchObject({
      outside: 'ring',
      outsideTo: null,
    });
    // Each thing that leads elsewhere now is told once, with the name of the link.
    for (const told of [
      /numbers .*Order form/,
      /attendantKeys .*Chat.*taken out/,
      /routeRules .*Order form.*taken out/,
      /presenceRules In a meeting .*Chat/,
      /ringGroups desk .*Order form/,
      /organisation .*Chat/,
      /web link Order form/,
      /web link Chat/,
    ])
      expect(notes.filter((n) => told.test(n))).toHaveLength(1);
    expect(notes).toHaveLength(8);
  });

  it('without web links is the same but for its version, and nothing is told', () => {
    const plain = { ...(JSON.parse(JSON.stringify(endsPlan())) as object), version: 3 };
    const upgraded = upgradeDocument(plain);
    expect(upgraded).toMatchObject({ ok: true, notes: [] });
    expect(upgraded.ok && { ...upgraded.document, version: 3 }).toEqual(plain);
  });

  it('is never changed itself, and odd lists are left for the schema to refuse', () => {
    const before = withLinks();
    const text = JSON.stringify(before);
    upgradeDocument(before);
    expect(JSON.stringify(before)).toBe(text);
    for (const webLinks of [7, 'x', [null], [{ name: 5 }], {}]) {
      const odd = upgradeDocument({ ...before, webLinks });
      expect(odd.ok).toBe(true);
    }
  });
});

describe('a document of version 4', () => {
  const older = (country: string) => {
    const { serviceCodes, ...plan } = JSON.parse(JSON.stringify(endsPlan())) as Record<
      string,
      Record<string, unknown>[]
    >;
    const featureCodes = serviceCodes!.map(({ service, ...code }) => ({ ...code, feature: service }));
    const organisation = { name: 'Older' };
    const sites = plan.sites!.map((s, i) => (i === 0 ? { ...s, country } : s));
    return { ...plan, organisation, sites, featureCodes, version: 4 };
  };

  it('has its codes as service codes, each doing what it did', () => {
    const upgraded = upgradeDocument(older('GB'));
    if (!upgraded.ok) throw new Error('not upgraded');
    expect(upgraded.notes).toEqual([]);
    expect(upgraded.document).not.toHaveProperty('featureCodes');
    expect(upgraded.document.serviceCodes).toEqual(endsPlan().serviceCodes);
    expect(readPlan(older('GB'))).toMatchObject({ ok: true, plan: { organisation: { dayOrder: 'day first' } } });
  });

  it('goes on writing dates as the country of its first site does', () => {
    const upgraded = upgradeDocument(older('US'));
    expect(upgraded).toMatchObject({ ok: true, document: { organisation: { dayOrder: 'month first' } } });
  });
});
