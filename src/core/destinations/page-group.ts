import type { PageGroup } from '../plan';
import { takesAll } from './takes-all';

/** A page group: the caller speaks from the members’ phones. */
export const pageGroup = takesAll<PageGroup>(
  'pageGroup',
  'page',
  (p) => `${p.name} speaks from ${p.members.length} phones.`,
);
