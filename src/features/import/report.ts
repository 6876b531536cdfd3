import type { Mapping, RowOutcome } from '@/core/acts/import';

/** What a check of a file told. */
export interface Report {
  file: string;
  recognised: { format: string; encoding: string | null; separator: string | null; sheet: string | null };
  header: string[];
  mapping: Mapping;
  counts: { rows: number; add: number; change: number; same: number; wrong: number; leftOut: number };
  wrong: ReportRow[];
  fine: ReportRow[];
  limits: { words: string; most: number; used: number; wanted: number; over: number }[];
}

export interface ReportRow extends RowOutcome {
  cells: string[];
}

/** What a file is to be read with, as the API takes it. */
export interface Settings {
  mapping: Mapping | null;
  site: string | null;
  class: string | null;
  makeTeams: boolean;
  corrections: Record<number, Record<number, string>>;
  leaveOut: number[];
}

export const EMPTY: Settings = {
  mapping: null,
  site: null,
  class: null,
  makeTeams: false,
  corrections: {},
  leaveOut: [],
};
