import { BlockedPage } from '@/features/blocked/blocked-page';
import { blockedPage } from '@/server/pages/others';

export default async function Page({ searchParams }: { searchParams: Promise<{ calling?: string }> }) {
  return <BlockedPage {...await blockedPage()} calling={(await searchParams).calling ?? null} />;
}
