import { PromptsPage } from '@/features/prompts/prompts-page';
import { prompts } from '@/server/pages/ledgers';

export default async function Page() {
  return <PromptsPage {...await prompts()} />;
}
