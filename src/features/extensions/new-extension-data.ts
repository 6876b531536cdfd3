import type { Input } from '@/contract';
import type { Option } from '@/workbench/form-data';
import type { LimitUse } from '@/workbench/limit-lines';

/** What the page for a new extension or joiner is given. */
export interface NewExtensionData {
  canEdit: boolean;
  limits: LimitUse[];
  teams: Option[];
  people: Option[];
  manyPeople: boolean;
  account: string;
  site: string;
  like: { id: string; kind: Kind; class: string; mailbox: boolean; ringSeconds: number } | null;
  classes: Option[];
  defaultClass: string;
  sites: { id: string; name: string; ranges: string; free: string[]; numbers: Option[] }[];
}

export type Kind = NonNullable<Input<'addExtension'>['body']['kind']>;

/** What the kinds of extension are called. */
export const KIND_WORDS: Record<Kind, string> = {
  person: 'person',
  place: 'place',
  fax: 'fax',
  virtual: 'routing only',
};

/** What was typed so far; kept when the page is left, but for the PIN. */
export interface Typed {
  site: string;
  digits: string;
  name: string;
  kind: Kind;
  class: string;
  mailbox: boolean;
  pin: string;
  email: string;
  attachSound: boolean;
  announceNumber: boolean;
  announceTime: boolean;
  number: string;
  place: string;
  team: string;
  language: string;
  sameAs: string;
}
