'use client';

import { ActLink } from '@/ui/controls';
import { LedgerPage, type LedgerPageData } from '@/workbench/ledger-page';

/** All attendants: where they stand, their keys, and which level is above. */
export function AttendantsPage({ data }: { data: LedgerPageData }) {
  return (
    <LedgerPage
      kind="attendant"
      title="Attendants"
      word="attendant"
      data={data}
      lead="An attendant greets callers and takes them where their keys lead."
      empty="An attendant greets callers by its hours and takes them where they press: to people, queues, another level, or a mailbox. Begin with its greeting; the keys are read from it."
      acts={data.canEdit ? <ActLink href="/attendants/begin">Begin with the greeting</ActLink> : null}
      columns={[
        { key: 'name', title: 'Name', width: 'minmax(150px, 1.3fr)' },
        { key: 'digits', title: 'Digits', width: '70px', mono: true },
        { key: 'keys', title: 'Keys', width: '110px', mono: true },
        { key: 'greeting', title: 'Greeting', width: 'minmax(130px, 1fr)' },
        { key: 'hours', title: 'Hours', width: 'minmax(120px, 1fr)' },
        { key: 'above', title: 'Level above', width: 'minmax(110px, 1fr)' },
        { key: 'site', title: 'Site', width: 'minmax(100px, 1fr)' },
      ]}
    />
  );
}
