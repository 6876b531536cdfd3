import { HoursLedgerPage } from '@/features/hours/hours-ledger-page';
import { hours } from '@/server/pages/ledgers';

export default async function Page() {
  return <HoursLedgerPage data={await hours()} />;
}
