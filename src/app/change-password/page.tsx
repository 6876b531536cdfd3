import { ChangePassword } from '@/features/sign-in/change-password';

export const dynamic = 'force-dynamic';

export default function Page() {
  return <ChangePassword />;
}
