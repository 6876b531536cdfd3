import { notFound } from 'next/navigation';
import { RevisionPage } from '@/features/go-live/revision-page';
import { labelsOf } from '@/server/lists';
import { may } from '@/server/access/rights';
import { compareRevisions, draftPlan, listRevisions, revisionPlan } from '@/server/draft';
import { pageActor } from '@/server/page';

export default async function Page({
  params,
  searchParams,
}: {
  params: Promise<{ number: string }>;
  searchParams: Promise<{ against?: string }>;
}) {
  const actor = await pageActor();
  const number = Number((await params).number);
  const revisions = await listRevisions(actor);
  const revision = revisions.find((r) => r.number === number);
  if (!revision) notFound();
  const asked = (await searchParams).against;
  const against =
    asked && /^[0-9]+$/.test(asked) && revisions.some((r) => r.number === Number(asked))
      ? Number(asked)
      : asked === 'draft' || number === 1
        ? ('draft' as const)
        : number - 1;
  const comparison =
    against === 'draft'
      ? await compareRevisions(actor, number, 'draft')
      : await compareRevisions(actor, against, number);
  const labels = { ...labelsOf((await revisionPlan(number)).plan), ...labelsOf((await draftPlan()).plan) };
  return (
    <RevisionPage
      revision={revision}
      revisions={revisions}
      against={against}
      comparison={comparison}
      labels={labels}
      mayEdit={may(actor, 'edit')}
    />
  );
}
