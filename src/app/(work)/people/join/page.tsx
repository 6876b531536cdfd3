import { NewExtensionPage } from '@/features/extensions/new-extension-page';
import { newExtensionPage } from '@/server/pages/others';

export default async function Page({ searchParams }: { searchParams: Promise<{ site?: string }> }) {
  return <NewExtensionPage joiner data={await newExtensionPage(await searchParams)} />;
}
