import { ExtensionPage } from '@/features/extensions/extension-page';
import { extensionPage } from '@/server/pages/objects';

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  return <ExtensionPage {...await extensionPage((await params).id)} />;
}
