import { PromptPage } from '@/features/prompts/prompt-page';
import { promptPage } from '@/server/pages/objects';

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  return <PromptPage page={await promptPage((await params).id)} />;
}
