import { TeamsPage } from '@/features/teams/teams-page';
import { teams } from '@/server/pages/ledgers';

export default async function Page() {
  return <TeamsPage data={await teams()} />;
}
