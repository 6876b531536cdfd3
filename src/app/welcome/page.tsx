import { redirect } from 'next/navigation';
import { WelcomePage } from '@/features/welcome/welcome-page';
import { welcomeData } from '@/server/pages/welcome';

export const dynamic = 'force-dynamic';

export default async function Page({ searchParams }: { searchParams: Promise<Record<string, string>> }) {
  if (!(await welcomeData())) redirect('/');
  return <WelcomePage code={(await searchParams).code ?? ''} />;
}
