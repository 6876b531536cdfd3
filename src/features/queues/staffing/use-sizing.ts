'use client';

import { useCallback, useEffect, useRef, useState } from 'react';
import type { Compared, Sized, SizingAsked, Step } from '@/core/load/sizing';
import type { Staffed } from '@/core/load/staffing';
import type { Told } from './sizing.worker';

/** What has been worked out so far. */
export interface Sizing {
  asked: SizingAsked;
  slots: ReadonlyMap<number, Staffed>;
  formulas: readonly Extract<Sized, { what: 'formulas' }>[];
  compared: readonly Compared[];
}

export interface SizingRun {
  sizing: Sizing | null;
  /** how far it is; null: nothing runs */
  step: Step | null;
  wrong: string | null;
  start: (asked: SizingAsked) => void;
  stop: () => void;
}

const BEGINNING: Step = { done: 0, total: 1, doing: 'beginning' };

/** A staffing worked out in a worker of the browser, shown as it comes, and stopped at any moment. */
export function useSizing(): SizingRun {
  const worker = useRef<Worker | null>(null);
  const [sizing, setSizing] = useState<Sizing | null>(null);
  const [step, setStep] = useState<Step | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const stop = useCallback(() => {
    worker.current?.terminate();
    worker.current = null;
    setStep(null);
  }, []);
  useEffect(() => stop, [stop]);
  const start = useCallback(
    (asked: SizingAsked) => {
      stop();
      setWrong(null);
      setStep(BEGINNING);
      setSizing({ asked, slots: new Map(), formulas: [], compared: [] });
      const made = new Worker(new URL('./sizing.worker.ts', import.meta.url), { type: 'module' });
      worker.current = made;
      made.onmessage = ({ data }: MessageEvent<Told>) => {
        if (worker.current !== made) return;
        if ('over' in data) stop();
        else if ('step' in data) setStep(data.step);
        else setSizing((s) => s && withSized(s, data.sized));
      };
      made.onerror = () => {
        if (worker.current !== made) return;
        setWrong('The simulation stopped by itself; what it worked out until then is shown.');
        stop();
      };
      made.postMessage(asked);
    },
    [stop],
  );
  return { sizing, step, wrong, start, stop };
}

function withSized(s: Sizing, sized: Sized): Sizing {
  switch (sized.what) {
    case 'slot':
      return { ...s, slots: new Map([...s.slots, [sized.slot, sized.staffed]]) };
    case 'formulas':
      return { ...s, formulas: [...s.formulas, sized] };
    case 'compared':
      return { ...s, compared: [...s.compared, sized.compared] };
  }
}
