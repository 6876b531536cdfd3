import type { ImportReport, ImportSettingsInput } from '@/contract/people';

export type Report = ImportReport;
export type ReportRow = ImportReport['wrong'][number];
/** What a file is to be read with, as the API takes it. */
export type Settings = ImportSettingsInput;

export type Sheet = Settings['sheet'];

export const EMPTY: Omit<Settings, 'sheet'> = {
  mapping: null,
  site: null,
  class: null,
  makeTeams: false,
  corrections: {},
  leaveOut: [],
};
