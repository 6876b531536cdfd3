import { NewExtensionPage } from '@/features/extensions/new-extension-page';
import { newExtensionData } from '@/server/draft/new-extension-data';
import { pageActor } from '@/server/page';

export default async function Page({ searchParams }: { searchParams: Promise<{ site?: string; like?: string }> }) {
  return <NewExtensionPage data={await newExtensionData(await pageActor(), await searchParams)} />;
}
