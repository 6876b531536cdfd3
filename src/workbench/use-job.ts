'use client';

import { useEffect, useState } from 'react';
import type { Job } from '@/contract/work';
import { addressOf, call } from './api';

/** Long work as the API tells it, with what its kind gives as result. */
export type JobFacts<R> = Omit<Job, 'result'> & {
  result: (R & { sentence?: string; errors?: { path: string; sentence: string }[] }) | null;
};

const AGAIN_MS = 1000;

const isOver = (job: Pick<Job, 'state'>) => job.state !== 'waiting' && job.state !== 'running';

/** Follows long work until it ends, as the server tells of it; `onEnd` is told once. */
export function useJob<R>(id: string | null, onEnd: (job: JobFacts<R>) => void): JobFacts<R> | null {
  const [job, setJob] = useState<JobFacts<R> | null>(null);
  useEffect(() => {
    if (!id) return;
    let over = false;
    let timer: ReturnType<typeof setTimeout> | undefined;
    const take = (value: unknown) => {
      if (over) return;
      const now = value as JobFacts<R>;
      setJob(now);
      if (!isOver(now)) return;
      over = true;
      events.close();
      onEnd(now);
    };
    const events = new EventSource(addressOf('jobEvents', { params: { id } }));
    events.onmessage = (e) => take(JSON.parse(e.data as string));
    // The browser opens a stream again by itself while it can; where it gives up, we ask.
    events.onerror = () => {
      if (over || events.readyState !== EventSource.CLOSED) return;
      const look = async () => {
        const got = await call('job', { params: { id } });
        if (got.ok) take(got.value);
        if (!over) timer = setTimeout(look, AGAIN_MS);
      };
      void look();
    };
    return () => {
      over = true;
      events.close();
      clearTimeout(timer);
    };
    // Whoever follows gives a new function at each drawing; the work is the same.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [id]);
  return id && job?.id === id ? job : null;
}

/** What to say of work that did not come to its end; null when it did. */
export function whyNot(job: JobFacts<unknown> | null): string | null {
  if (!job || job.state === 'done' || !isOver(job)) return null;
  return job.result?.errors?.[0]?.sentence ?? job.result?.sentence ?? 'It did not work.';
}
