/** Kinds of objects that are kept in sheets of their own, beside that of people and extensions: there can be many of each. */
export const SHEET_KINDS = [
  'hours',
  'holidays',
  'inboundRoute',
  'routeRule',
  'timeSwitch',
  'serviceCode',
  'parkPlace',
  'pageGroup',
  'conference',
  'directory',
  'announcement',
  'fax',
  'outsideNumber',
  'tone',
] as const;
export type SheetKind = (typeof SHEET_KINDS)[number];

export const isSheetKind = (text: string): text is SheetKind => (SHEET_KINDS as readonly string[]).includes(text);
