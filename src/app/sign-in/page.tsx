import { Suspense } from 'react';
import { SignIn } from '@/features/sign-in/sign-in';

export default function SignInPage() {
  return (
    <Suspense>
      <SignIn />
    </Suspense>
  );
}
