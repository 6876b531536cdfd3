'use client';

import { useState } from 'react';
import { Act } from '@/ui/controls';
import type { Chosen } from './paged-ledger';
import type { BulkLedger, BulkOptions } from './bulk-fields';
import { BulkPanel } from './bulk-panel';

/** What a ledger needs to edit many of its rows: the act beside the filter, and the panel it opens above. */
export function useBulk(ledger: BulkLedger, options: BulkOptions) {
  const [chosen, setChosen] = useState<Chosen | null>(null);
  return {
    chosenActs: (now: Chosen) => (
      <Act look="main" onClick={() => setChosen(now)}>
        Edit {now.count}…
      </Act>
    ),
    above: chosen ? (
      <BulkPanel ledger={ledger} chosen={chosen} options={options} onClose={() => setChosen(null)} />
    ) : null,
  };
}
