/** Places of the number space that are kept on a compact page a kind, in the order of their list, by the name in their address. */
export const PLACES = {
  codes: 'serviceCode',
  'park-places': 'parkPlace',
  'page-groups': 'pageGroup',
  conferences: 'conference',
  directories: 'directory',
  announcements: 'announcement',
  faxes: 'fax',
  'outside-numbers': 'outsideNumber',
  tones: 'tone',
} as const;
export type PlaceName = keyof typeof PLACES;
export type PlaceKind = (typeof PLACES)[PlaceName];

export const isPlaceName = (text: string): text is PlaceName => Object.hasOwn(PLACES, text);
