'use client';

import { useState } from 'react';
import type { Input } from '@/contract';
import type { ReplayAnswer } from '@/contract/records';
import { call } from '../api';
import { useJob, whyNot, type JobFacts } from '../use-job';

export interface Replaying {
  /** the work while it goes on; null: none does */
  work: JobFacts<ReplayAnswer> | null;
  running: boolean;
  found: ReplayAnswer | null;
  wrong: string | null;
  start: (asked: Input<'replayCalls'>['body']) => Promise<void>;
}

/** Runs real calls through the draft; what was found stands until the next run is over. */
export function useReplay(): Replaying {
  const [job, setJob] = useState<string | null>(null);
  const [found, setFound] = useState<ReplayAnswer | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const work = useJob<ReplayAnswer>(job, (ended) => {
    setWrong(whyNot(ended));
    if (ended.state === 'done' && ended.result) setFound(ended.result);
    // Other work may have begun meanwhile.
    setJob((now) => (now === ended.id ? null : now));
  });
  return {
    work,
    running: job !== null,
    found,
    wrong,
    start: async (asked) => {
      setWrong(null);
      const got = await call('replayCalls', { body: asked });
      if (got.ok) setJob(got.value.job);
      else setWrong(got.errors[0]!.sentence);
    },
  };
}
