'use client';

import type { PlaceKind, PlaceName } from '@/core/plan/facts/places';
import { ActLink } from '@/ui/controls';
import { LedgerPage, type LedgerPageData } from '@/workbench/ledger-page';
import { PLACE_WORDS } from './data';

/** All places of one kind, each with its digits and what it does. */
export function PlaceLedgerPage({ name, kind, data }: { name: PlaceName; kind: PlaceKind; data: LedgerPageData }) {
  const { title, word, empty } = PLACE_WORDS[name];
  return (
    <LedgerPage
      key={kind}
      kind={kind}
      title={title}
      word={word}
      data={data}
      acts={<ActLink href="/places">Number space</ActLink>}
      empty={empty}
      columns={[
        { key: 'digits', title: 'Digits', width: '80px', mono: true },
        { key: 'name', title: 'Name', width: 'minmax(150px, 1.2fr)' },
        { key: 'says', title: 'Does', width: 'minmax(180px, 2fr)' },
        { key: 'site', title: 'Site', width: 'minmax(110px, 1fr)' },
        { key: 'from', title: 'Reached by', width: 'minmax(110px, 1fr)' },
      ]}
    />
  );
}
