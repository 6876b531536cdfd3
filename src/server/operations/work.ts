import type { workFacts } from '@/contract/work';
import { markRead, undoNamed, unreadOf } from '../draft';
import { readActs } from '../history/acts';
import { historyCsv, readHistory } from '../history/history';
import { jobEvents } from '../jobs/events';
import { deadJobs, readJob, retryJob, stopJob } from '../jobs/jobs';
import { bodyErrors } from './check-body';
import type { Handlers } from './handler';

export const workHandlers: Handlers<keyof typeof workFacts> = {
  history: async ({ actor, query }) =>
    query.format === 'csv'
      ? new Response(await historyCsv(actor, query), {
          headers: {
            'content-type': 'text/csv; charset=utf-8; header=present',
            'content-disposition': 'attachment; filename="history.csv"',
            'cache-control': 'no-store',
          },
        })
      : readHistory(actor, query),
  acts: ({ actor, query }) => readActs(actor, query),
  checkBody: async ({ body, params }) => ({ errors: bodyErrors(params.operation, body) }),
  told: async ({ actor }) => ({ told: await unreadOf(actor) }),
  read: async ({ actor, params }) => {
    await markRead(actor, params.id);
    return { ok: true as const };
  },
  undoBatch: ({ actor, params }) => undoNamed(actor, params.batch),
  job: ({ actor, params }) => readJob(actor, params.id),
  jobEvents: ({ actor, params, request }) => jobEvents(actor, params.id, request.signal),
  stopJob: ({ actor, params }) => stopJob(actor, params.id),
  deadJobs: async ({ actor }) => ({ jobs: await deadJobs(actor) }),
  retryJob: ({ actor, params }) => retryJob(actor, params.id),
};
