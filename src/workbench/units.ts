/** Units that stand beside figures, by how their fields are named; the first that fits. */
const UNITS: readonly [RegExp, string][] = [
  [/Seconds$|^seconds$/, 'seconds'],
  [/KbitPerSecond$/, 'kbit/s'],
  [/Ms$/, 'milliseconds'],
  [/Digits$|^strip$|^deliveredLength$/, 'digits'],
  [/^channels$|^kept/, 'channels'],
  [/^mostMessages$/, 'messages'],
  [/^mostWaiting$|^mostMembers$/, 'callers'],
  [/^lines$/, 'calls at once'],
  [/^pausesAfter$/, 'offers'],
];

/** The unit of a figure; null where it has none. */
export const unitOf = (field: string): string | null => UNITS.find(([re]) => re.test(field))?.[1] ?? null;
