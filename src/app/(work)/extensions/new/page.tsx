import { NewExtensionPage } from '@/features/extensions/new-extension-page';
import { newExtensionPage } from '@/server/pages/others';

export default async function Page({ searchParams }: { searchParams: Promise<{ site?: string; like?: string }> }) {
  return <NewExtensionPage data={await newExtensionPage(await searchParams)} />;
}
