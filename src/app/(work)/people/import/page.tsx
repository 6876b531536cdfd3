import { ImportPage } from '@/features/import/import-page';
import { newExtensionData } from '@/server/draft/new-extension-data';
import { pageActor } from '@/server/page';

export default async function Page() {
  const data = await newExtensionData(await pageActor(), {});
  const options = (list: readonly { id: string; name: string }[]) => list.map((o) => ({ id: o.id, label: o.name }));
  return (
    <ImportPage
      sites={options(data.sites)}
      classes={options(data.classes)}
      defaultClass={data.defaultClass}
      limits={data.limits}
    />
  );
}
