import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { beforeAll, describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { seal, strongPassword, unseal } from './secrets';
import { newToken, tokenHash } from './tokens';

beforeAll(() => {
  const folder = mkdtempSync(join(tmpdir(), 'polydrome-key-'));
  writeFileSync(join(folder, 'secret-key'), 'ab'.repeat(32));
  process.env.POLYDROME_DATA = folder;
});

describe('sealed secrets', () => {
  it('open to what they were, with the same owner and purpose only', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme', maxLength: 200 }), fc.string(), (plain, context) => {
        const sealed = seal(plain, context);
        expect(unseal(sealed, context)).toBe(plain);
        expect(() => unseal(sealed, `${context}x`)).toThrow();
      }),
      { numRuns: 100 },
    );
  });

  it('never look the same twice, nor hold the plain text', () => {
    const [a, b] = [seal('quay-lantern', 'e-1'), seal('quay-lantern', 'e-1')];
    expect(a.equals(b)).toBe(false);
    expect(a.includes('quay')).toBe(false);
  });

  it('do not open after any bit was changed', () => {
    const sealed = seal('quay-lantern', 'e-1');
    for (let i = 0; i < sealed.length; i++) {
      const changed = Buffer.from(sealed);
      changed[i]! ^= 1;
      expect(() => unseal(changed, 'e-1')).toThrow();
    }
  });
});

describe('made passwords and tokens', () => {
  it('are long, of letters and digits that can’t be mistaken, and all different', () => {
    const made = Array.from({ length: 500 }, strongPassword);
    expect(new Set(made).size).toBe(500);
    for (const p of made) expect(p).toMatch(/^[A-HJ-NP-Za-km-np-z2-9]{20}$/);
    // Every letter and digit of the set is used: no part of it is out of reach.
    expect(new Set(made.join('')).size).toBe(56);
  });

  it('tokens have 256 bits and are kept as SHA-256', () => {
    const token = newToken();
    expect(Buffer.from(token, 'base64url')).toHaveLength(32);
    expect(tokenHash(token)).toHaveLength(32);
    expect(tokenHash('abc').toString('hex')).toBe('ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad');
  });
});
