import { HolidaysLedgerPage } from '@/features/hours/holidays-ledger-page';
import { holidays } from '@/server/pages/ledgers';

export default async function Page() {
  return <HolidaysLedgerPage data={await holidays()} />;
}
