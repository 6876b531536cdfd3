import type { LedgerPageData } from '@/workbench/ledger-page';

/** One ladder as its screen shows it. */
export interface OutboundData extends LedgerPageData {
  ladders: { id: string; name: string }[];
  ladder: { id: string; name: string } | null;
  sites: { id: string; name: string; prefix: string | null }[];
  emergency: string[];
  emergencyTrunks: string[];
  firstPhone: { digits: string; label: string } | null;
  rungs: RungRow[];
}

/** One rule with what it takes. */
export interface RungRow {
  id: string;
  rowVersion: number;
  value: {
    name: string;
    map: string;
    position: number;
    note: string;
    show: 'usual' | 'extension' | 'hidden' | 'fixed';
  };
  mark: 'new' | 'changed' | null;
  trunks: string[];
  /** names nobody, so that it can take everything from those below */
  forEveryone: boolean;
  isFor: string[];
  notFor: string[];
  count: string;
  coveredBy: number[] | null;
}
