import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { smallDocument } from '../../../tests/support/small-plan';
import { line, note, visible } from './facts/fields';
import { planText, readPlan } from './document';
import { storedPlan } from './stored';
import { upgradeDocument } from './upgrade';

const one = line(80, 1);

/** Signs that Unicode itself calls invisible or controlling, by its own properties rather than by our list. */
const UNSEEN = [...Array(0x3000).keys(), 0xfeff]
  .map((n) => String.fromCodePoint(n))
  .filter((c) => /[\p{Cc}\p{Bidi_Control}]|[\u200b\u2060-\u2064\ufeff\u00ad\u180e]|[\p{Zl}\p{Zp}]/u.test(c));

describe('text that people read', () => {
  it('holds no sign that can’t be seen, wherever it stands', () => {
    expect(UNSEEN.length).toBeGreaterThan(80);
    for (const sign of UNSEEN)
      for (const text of [`a${sign}b`, `å${sign}ß`])
        expect([sign.codePointAt(0), one.safeParse(text).success]).toEqual([sign.codePointAt(0), false]);
  });

  it('may have lines in a note, and in a name not', () => {
    expect(note.safeParse('one\r\ntwo\tthree').success).toBe(true);
    for (const text of ['one\ntwo', 'one\ttwo', 'one\rtwo']) expect(one.safeParse(text).success).toBe(false);
    expect(note.safeParse('one\u202etwo').success).toBe(false);
  });

  it.each(['Ålesund', 'Zoë O’Neil', 'سلام‌دنیا', '👩‍👩‍👧 family', 'Ivan Иван', '東京', 'Ærø & Søn', '+44 (0)20'])(
    'is taken as people write it: %s',
    (text) => expect(one.parse(text)).toBe(text),
  );

  it('loses no sign that can be seen when the others are taken out, and is taken then', () => {
    const mixed = fc.array(fc.oneof(fc.constantFrom('a', 'Å', '東', '👍', '-'), fc.constantFrom(...UNSEEN)), {
      maxLength: 30,
    });
    fc.assert(
      fc.property(mixed, (signs) => {
        const left = visible(signs.join(''));
        const seen = signs.filter((s) => !UNSEEN.includes(s)).join('');
        // Line ends and tabs have their place in notes.
        expect(left.replace(/[\t\n\r]/g, '')).toBe(seen);
        expect(note.safeParse(left).success).toBe(true);
      }),
    );
  });

  it('takes time that grows with its length', () => {
    // Twenty times as long as anything that gets here; were it more than linear it would not end.
    for (const text of ['\u200d'.repeat(400_000), 'å\u200d'.repeat(200_000), `${'å\u200d'.repeat(200_000)}\u0000`])
      expect(one.safeParse(text).success).toBe(false);
  });
});

describe('a plan that was stored by an earlier program', () => {
  it('is read without the signs that this one refuses, and otherwise as it was', () => {
    const document = smallDocument() as unknown as { people: { name: string }[]; sites: { name: string }[] };
    const wanted = readPlan(structuredClone(document));
    document.people[0]!.name += '\u200b';
    document.sites[0]!.name = `\u202e${document.sites[0]!.name}`;
    expect(readPlan(structuredClone(document)).ok).toBe(false);
    const upgraded = upgradeDocument(document);
    if (!wanted.ok || !upgraded.ok) throw new Error('the small plan is none');
    expect(planText(storedPlan(upgraded.document))).toBe(planText(wanted.plan));
  });

  it('that is none is no plan by any leave', () => {
    for (const nothing of [null, 1, [], {}, { version: 4 }]) expect(() => storedPlan(nothing)).toThrow();
  });
});
