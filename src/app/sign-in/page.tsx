import { redirect } from 'next/navigation';
import { Suspense } from 'react';
import { SignIn } from '@/features/sign-in/sign-in';
import { welcomeData } from '@/server/pages/welcome';

export const dynamic = 'force-dynamic';

export default async function SignInPage() {
  // A database that is away is told by what comes next.
  if (await welcomeData().catch(() => false)) redirect('/welcome');
  return (
    <Suspense>
      <SignIn />
    </Suspense>
  );
}
