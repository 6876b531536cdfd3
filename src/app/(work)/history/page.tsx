import { OBJECT_KINDS, OBJECTS } from '@/core/plan';
import { HistoryPage } from '@/features/history/history-page';
import { may } from '@/server/access/rights';
import { historySchema, readHistory } from '@/server/history/history';
import { pageActor } from '@/server/page';

export default async function Page({ searchParams }: { searchParams: Promise<Record<string, string | undefined>> }) {
  const actor = await pageActor();
  // An address that somebody has changed by hand is read as far as it makes sense.
  const read = historySchema.safeParse(await searchParams);
  const asked = read.success ? read.data : historySchema.parse({});
  const { object, kind, who, from, to, batch } = asked;
  return (
    <HistoryPage
      key={JSON.stringify(asked)}
      asked={{ object, kind, who, from, to, batch }}
      first={await readHistory(actor, asked)}
      kinds={OBJECT_KINDS.map((k) => ({ id: k, label: OBJECTS[k].word }))}
      mayUndo={may(actor, 'edit')}
    />
  );
}
