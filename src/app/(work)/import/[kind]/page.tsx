import { ImportPage } from '@/features/import/import-page';
import { kindImportPage } from '@/server/pages/sheets';

export default async function Page({ params }: { params: Promise<{ kind: string }> }) {
  const props = await kindImportPage((await params).kind);
  return <ImportPage key={props.sheet} {...props} />;
}
