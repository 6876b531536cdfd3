'use client';

import { useState } from 'react';
import { call } from '@/workbench/api';
import { Act } from '@/ui/controls';
import { say } from '@/ui/toasts';

/** Puts a caller on the list of blocked callers in one act, and lets them through again in another. */
export function BlockAct({
  number,
  shown,
  blocked = false,
  reason = '',
  onDone,
}: {
  number: string;
  shown: string;
  blocked?: boolean;
  reason?: string;
  onDone?: () => void;
}) {
  const [busy, setBusy] = useState(false);
  const [made, setMade] = useState<string | null>(null);
  const run = async (work: () => Promise<void>) => {
    setBusy(true);
    await work();
    setBusy(false);
    onDone?.();
  };
  const block = () =>
    run(async () => {
      const done = await call('block', { body: { site: null, calling: number, until: null, leadsTo: null, reason } });
      if (done.ok) setMade(done.value.id);
      else say(done.errors[0]!.sentence);
    });
  const undo = () =>
    run(async () => {
      const done = await call('unblock', { params: { id: made! } });
      if (done.ok || done.status === 404) setMade(null);
      else say(done.errors[0]!.sentence);
    });
  if (made)
    return (
      <Act h="28px" disabled={busy} onClick={() => void undo()} aria-label={`Blocked; let ${shown} through again`}>
        Blocked · let through
      </Act>
    );
  return (
    <Act h="28px" disabled={busy || blocked} onClick={() => void block()} aria-label={`Block ${shown}`}>
      {blocked ? 'Blocked' : busy ? 'Blocking …' : 'Block'}
    </Act>
  );
}
