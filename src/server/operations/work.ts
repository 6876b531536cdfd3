import type { workFacts } from '@/contract/work';
import { undoNamed } from '../draft';
import { historyCsv, readHistory } from '../history/history';
import { jobEvents } from '../jobs/events';
import { deadJobs, readJob, retryJob, stopJob } from '../jobs/jobs';
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
  undoBatch: ({ actor, params }) => undoNamed(actor, params.batch),
  job: ({ actor, params }) => readJob(actor, params.id),
  jobEvents: ({ actor, params, request }) => jobEvents(actor, params.id, request.signal),
  stopJob: ({ actor, params }) => stopJob(actor, params.id),
  deadJobs: async ({ actor }) => ({ jobs: await deadJobs(actor) }),
  retryJob: ({ actor, params }) => retryJob(actor, params.id),
};
