import type { LedgerPageData } from '@/workbench/ledger-page';

/** One ladder as its screen shows it. */
export interface OutboundData extends LedgerPageData {
  ladders: { id: string; name: string }[];
  ladder: { id: string; name: string } | null;
  sites: { id: string; name: string; prefix: string | null }[];
  emergency: string[];
  emergencyTrunks: string[];
  phones: { digits: string; label: string }[];
  rungs: RungRow[];
}

/** One rule with what it takes. */
export interface RungRow {
  id: string;
  rowVersion: number;
  value: { name: string; map: string; position: number; note: string };
  mark: 'new' | 'changed' | null;
  trunks: string[];
  aside: string;
  count: string;
  coveredBy: number[] | null;
}
