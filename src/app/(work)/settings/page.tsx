import { usedOf } from '@/core/acts/limits';
import { SettingsPage } from '@/features/settings/settings-page';
import { may } from '@/server/access/rights';
import { listRoles } from '@/server/access/roles';
import { hasSecondFactor } from '@/server/access/second-factor';
import { listSessions } from '@/server/access/sessions';
import { readSettings } from '@/server/access/settings';
import { listApiTokens } from '@/server/access/tokens';
import { draftPlan } from '@/server/draft';
import { readLimits } from '@/server/draft/limits';
import { pageActor, pageToken } from '@/server/page';

export default async function Page() {
  const actor = await pageActor();
  const draft = await draftPlan();
  const manages = may(actor, 'administer');
  return (
    <SettingsPage
      name={actor.name}
      role={actor.role.name}
      settings={await readSettings()}
      maySet={may(actor, 'changeSettings')}
      tokens={manages ? await listApiTokens(actor) : null}
      roles={(await listRoles()).map(({ id, name }) => ({ id, name }))}
      secondFactor={await hasSecondFactor(actor)}
      sessions={await listSessions(actor, await pageToken())}
      limits={await readLimits()}
      used={usedOf(draft.plan)}
      mayAdminister={manages}
      organisation={{ value: draft.plan.organisation, rowVersion: draft.rowVersions.get('organisation') ?? 1 }}
      mayEdit={may(actor, 'edit', { area: 'sites', site: null })}
    />
  );
}
