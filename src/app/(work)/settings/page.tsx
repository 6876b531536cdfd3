import { SettingsPage } from '@/features/settings/settings-page';
import { settingsPage } from '@/server/pages/others';

export default async function Page() {
  return <SettingsPage {...await settingsPage()} />;
}
