import type { NumberSpace } from '@/core/analysis';
import type { PlaceKind, PlaceName } from '@/core/plan/facts/places';
import type { Option } from '@/workbench/form-data';

/** The number space of a site, and the kinds of places that stand in it. */
export interface PlacesData {
  sites: Option[];
  site: string | null;
  space: NumberSpace | null;
  kinds: { name: PlaceName; kind: PlaceKind; words: string; count: number }[];
}

/** What a list of one kind of place is for, and its title. */
export const PLACE_WORDS: Record<PlaceName, { title: string; word: string; empty: string }> = {
  codes: {
    title: 'Service codes',
    word: 'service code',
    empty:
      'A service code does something when it is dialled: opens a mailbox, picks up, parks, signs in, sets a time switch. The digits are yours to choose.',
  },
  'park-places': {
    title: 'Park places',
    word: 'park place',
    empty: 'A call that is parked waits here until somebody at any phone fetches it, or comes back after its seconds.',
  },
  'page-groups': {
    title: 'Page groups',
    word: 'page group',
    empty: 'Who dials a page group speaks through the speakers of its phones.',
  },
  conferences: {
    title: 'Conferences',
    word: 'conference',
    empty: 'Everybody who dials a conference talks with everybody else in it.',
  },
  directories: {
    title: 'Directories',
    word: 'directory',
    empty: 'Callers spell a name with the letters on their keys and are put through.',
  },
  announcements: {
    title: 'Announcements',
    word: 'announcement',
    empty: 'Callers hear a prompt, then go on to somewhere else or the call ends.',
  },
  faxes: { title: 'Fax ends', word: 'fax', empty: 'A fax takes pages without a word and mails them on.' },
  'outside-numbers': {
    title: 'Outside numbers',
    word: 'outside number',
    empty:
      'A number outside that routes and switches may lead to, such as a night mobile. Its class says what it may cost.',
  },
  tones: {
    title: 'Tones',
    word: 'tone',
    empty: 'Callers who are led here hear a tone and are released with its cause.',
  },
};
