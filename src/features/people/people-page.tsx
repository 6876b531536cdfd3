'use client';

import { useRouter } from 'next/navigation';
import { ActLink } from '@/ui/controls';
import { PagedLedgerPage, type PagedLedgerData } from '@/workbench/paged-ledger-page';
import { useBulk } from '@/workbench/use-bulk';

export function PeoplePage({ data }: { data: PagedLedgerData }) {
  const router = useRouter();
  const many = useBulk('person', data.bulk);
  const go = (href: string) => (e: React.MouseEvent) => {
    e.preventDefault();
    router.push(href);
  };
  return (
    <PagedLedgerPage
      title="People"
      word="person"
      data={data}
      addHref="/people/join"
      acts={
        <>
          <ActLink href="/api/v1/exports/directory?format=vcard">Directory</ActLink>
          {data.canEdit && data.mayBulk ? (
            <ActLink href="/people/import" onClick={go('/people/import')}>
              Import or export
            </ActLink>
          ) : null}
          {data.canEdit ? (
            <ActLink look="main" href="/people/join" onClick={go('/people/join')}>
              Add joiner
            </ActLink>
          ) : null}
        </>
      }
      {...many}
      empty="People are who extensions and mailboxes belong to. Add a joiner, or bring a whole sheet of them."
      columns={[
        { key: 'name', title: 'Name', width: 'minmax(160px, 1.4fr)' },
        { key: 'extensions', title: 'Extension', width: '90px', mono: true },
        { key: 'number', title: 'Own number', width: '150px', mono: true },
        { key: 'site', title: 'Site', width: 'minmax(110px, 1fr)' },
        { key: 'teams', title: 'Teams', width: 'minmax(120px, 1.1fr)' },
        { key: 'class', title: 'Class', width: 'minmax(90px, 0.8fr)' },
        { key: 'email', title: 'E-mail', width: 'minmax(190px, 1.4fr)', optional: true },
        { key: 'language', title: 'Language', width: '80px', optional: true },
      ]}
    />
  );
}
