import { NewExtensionPage } from '@/features/extensions/new-extension-page';
import { newExtensionData } from '@/server/draft/new-extension-data';
import { pageActor } from '@/server/page';

export default async function Page({ searchParams }: { searchParams: Promise<{ site?: string }> }) {
  return <NewExtensionPage joiner data={await newExtensionData(await pageActor(), await searchParams)} />;
}
