import { TeamPage } from '@/features/teams/team-page';
import { teamPage } from '@/server/pages/objects';

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  return <TeamPage {...await teamPage((await params).id)} />;
}
