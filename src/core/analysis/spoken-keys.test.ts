import { describe, expect, it } from '@jest/globals';
import { spokenKeys } from './spoken-keys';

describe('keys that a greeting names', () => {
  it.each<[string, string, [string, string][]]>([
    [
      'English',
      'Welcome to Lanternfold Ferries. For bookings press 1, for freight press 2, for sailing status press 3.',
      [
        ['1', 'bookings'],
        ['2', 'freight'],
        ['3', 'sailing status'],
      ],
    ],
    [
      'the other way round',
      'Press 3 for freight. Press 0 to reach the terminal desk.',
      [
        ['3', 'freight'],
        ['0', 'terminal desk'],
      ],
    ],
    [
      'a list that goes on',
      'For bookings press 1, freight 2, sailing status 3 and lost property 4.',
      [
        ['1', 'bookings'],
        ['2', 'freight'],
        ['3', 'sailing status'],
        ['4', 'lost property'],
      ],
    ],
    [
      'named keys',
      'To hear this again press star. For staff by name, press the hash key.',
      [
        ['*', 'hear this again'],
        ['#', 'staff by name'],
      ],
    ],
    ['words for digits', 'For freight press three.', [['3', 'freight']]],
    [
      'Swedish',
      'Välkommen. För bokningar tryck 1, för frakt tryck två.',
      [
        ['1', 'bokningar'],
        ['2', 'frakt'],
      ],
    ],
    [
      'German',
      'Für Buchungen drücken Sie die 1, für Fracht drücken Sie die Zwei.',
      [
        ['1', 'Buchungen'],
        ['2', 'Fracht'],
      ],
    ],
    ['a pause between', 'For bookings <break time="300ms"/> press 1.', [['1', 'bookings']]],
    ['nothing', 'We sail at 8:15 from berth 3, and are closed on 24 December.', []],
    ['a key alone', 'Press 5.', [['5', '']]],
  ])('%s', (_, text, keys) => expect(spokenKeys(text).map((k) => [k.key, k.what])).toEqual(keys));
});
