import { TeamsPage } from '@/features/teams/teams-page';
import { teamsData } from '@/server/people/teams';

export default async function Page() {
  return <TeamsPage data={await teamsData()} />;
}
