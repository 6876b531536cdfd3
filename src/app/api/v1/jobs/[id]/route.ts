import { door } from '@/server/http/door';
import { operations } from '@/server/http/operations';
import { readJob, stopJob } from '@/server/jobs/jobs';

export const GET = door(operations.job, async ({ actor, params }) => readJob(actor, params.id!));
export const DELETE = door(operations.stopJob, async ({ actor, params }) => stopJob(actor, params.id!));
