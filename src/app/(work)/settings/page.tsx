import { SettingsPage } from '@/features/settings/settings-page';
import { may } from '@/server/access/rights';
import { readSettings } from '@/server/access/settings';
import { listApiTokens } from '@/server/access/tokens';
import { pageActor } from '@/server/page';

export default async function Page() {
  const actor = await pageActor();
  const manages = may(actor, 'administer');
  return (
    <SettingsPage
      name={actor.name}
      role={actor.role.name}
      settings={await readSettings()}
      maySet={may(actor, 'changeSettings')}
      tokens={manages ? await listApiTokens(actor) : null}
    />
  );
}
