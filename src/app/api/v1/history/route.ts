import { door } from '@/server/http/door';
import { operations } from '@/server/http/operations';
import { historyCsv, readHistory } from '@/server/history/history';

export const GET = door(operations.history, async ({ actor, query }) =>
  query.format === 'csv'
    ? new Response(await historyCsv(actor, query), {
        headers: {
          'content-type': 'text/csv; charset=utf-8; header=present',
          'content-disposition': 'attachment; filename="history.csv"',
        },
      })
    : readHistory(actor, query),
);
