'use client';

import { useEffect, useState } from 'react';
import { call } from './api';

/** Long work as the API tells it. */
export interface JobFacts<R> {
  id: string;
  state: 'waiting' | 'running' | 'done' | 'refused' | 'stopped' | 'failed';
  done: number;
  total: number;
  doing: string;
  result: (R & { sentence?: string; errors?: { path: string; sentence: string }[] }) | null;
}

const LOOK_EVERY_MS = 200;

/** Follows long work until it ends; `onEnd` is told once. */
export function useJob<R>(id: string | null, onEnd: (job: JobFacts<R>) => void): JobFacts<R> | null {
  const [job, setJob] = useState<JobFacts<R> | null>(null);
  useEffect(() => {
    if (!id) return;
    let over = false;
    const look = async () => {
      const got = await call<JobFacts<R>>('GET', `/jobs/${id}`);
      if (over) return;
      if (got.ok) {
        setJob(got.value);
        if (got.value.state !== 'waiting' && got.value.state !== 'running') {
          over = true;
          onEnd(got.value);
          return;
        }
      }
      setTimeout(look, LOOK_EVERY_MS);
    };
    void look();
    return () => {
      over = true;
    };
    // Whoever follows gives a new function at each drawing; the work is the same.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [id]);
  return id && job?.id === id ? job : null;
}

/** What to say of work that did not come to its end; null when it did. */
export function whyNot(job: JobFacts<unknown> | null): string | null {
  if (!job || job.state === 'done' || job.state === 'waiting' || job.state === 'running') return null;
  return job.result?.errors?.[0]?.sentence ?? job.result?.sentence ?? 'It did not work.';
}
