/** How an end of calls or another object is drawn: one of these glyphs, each with its colour and line (LOOK). */
export const LOOKS = [
  'phone',
  'tray',
  'leaving',
  'group',
  'bars',
  'keys',
  'speech',
  'sheet',
  'clock',
  'bar',
  'crossed',
  'lines',
  'caller',
  'rule',
  'number',
] as const;
export type Look = (typeof LOOKS)[number];
