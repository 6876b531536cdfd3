import type { ObjectPageData, Option } from '@/workbench/form-data';

export interface PromptData {
  data: ObjectPageData;
  /** where it is heard */
  users: { kind: string; id: string; label: string }[];
  others: Option[];
  /** the keys that its text names */
  spoken: { key: string; what: string }[];
}

/** A prompt in one language. */
export interface VersionShown {
  language: string;
  text: string;
  seconds: number;
  sound: string | null;
}

/** The pause that is written into a text (SSML, W3C). */
export const PAUSE = '<break time="500ms"/>';
