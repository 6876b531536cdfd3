import { v7 as uuid } from 'uuid';
import type { AttendantKey, FieldFacts, Prompt } from '@/core/plan';
import type { AttendantMode } from '@/core/plan/facts/attendants';
import type { ObjectPageData, Option } from '@/workbench/form-data';

export interface KeyShown {
  value: AttendantKey;
  rowVersion: number;
  mark: 'new' | 'changed' | null;
}

/** What a mode has: its greeting, the keys that the greeting names, and whether nothing at all is set. */
export interface ModeShown {
  missing: boolean;
  greeting: Prompt | null;
  spoken: { key: string; what: string }[];
}

/** Everything that the page of an attendant shows. */
export interface AttendantData {
  data: ObjectPageData;
  keys: KeyShown[];
  keyFields: FieldFacts[];
  /** where its keys lead, by id */
  ends: Record<string, { kind: string; name: string }>;
  choices: { options: Record<string, Option[]>; long: readonly string[] };
  modes: Record<AttendantMode, ModeShown>;
  zone: string;
  siteLanguage: string;
  /** outside prefix of its site */
  prefix: string | null;
  /** the name of its hours; null: always open */
  hours: string | null;
  /** keys that wait for more digits, each with digits that begin with it */
  slow: [string, string][];
  /** the way that dialling on to the outside opens, or would open */
  opened: { entered: string; rule: string; out: string } | null;
  /** attendants whose level above this is */
  levels: { id: string; name: string }[];
  /** numbers whose calls come here */
  numbers: string[];
  /** what callers may dial while the greeting plays */
  dialled: { count: number; first: string | null; last: string | null };
  isLive: boolean;
}

export const MODE_TITLES: Record<AttendantMode, string> = {
  open: 'Open',
  closed: 'Closed',
  holiday: 'Holiday',
  notice: 'Notice',
};

/** What a mode without anything of its own does. */
export const FALLS_BACK: Record<AttendantMode, string> = {
  open: 'nothing set: callers are released',
  closed: 'nothing set: callers are released',
  holiday: 'same as closed',
  notice: 'as the notice says',
};

/** The edit that sets a key. */
export const newKey = (attendant: string, mode: string, key: string, value: Record<string, unknown>) => {
  const id = uuid();
  return {
    do: 'add' as const,
    of: { kind: 'attendantKey' as const, id },
    value: { id, attendant, mode, key, ...value },
  };
};
