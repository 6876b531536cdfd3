import { RevisionPage } from '@/features/go-live/revision-page';
import { revisionPage } from '@/server/pages/others';

interface Props {
  params: Promise<{ number: string }>;
  searchParams: Promise<{ against?: string }>;
}

export default async function Page({ params, searchParams }: Props) {
  const data = await revisionPage((await params).number, (await searchParams).against);
  return <RevisionPage key={`${data.revision.number} ${data.against}`} {...data} />;
}
