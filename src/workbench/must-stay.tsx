'use client';

import { useState } from 'react';
import { Act, ActLink, Wrong } from '@/ui/controls';
import { useRefresh } from '@/ui/refresh';
import { say } from '@/ui/toasts';
import { call } from './api';

/** Promises that a call, or all the strings that go as it does, stays as it goes now. */
export function MustStay({
  of,
  about,
}: {
  of: { from: string; dial: string; at: string; map?: string | null };
  /** what it is about, for the name of the button */
  about: string;
}) {
  const refresh = useRefresh();
  const [busy, setBusy] = useState(false);
  const [made, setMade] = useState<string | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const promise = async () => {
    setBusy(true);
    const { map = null, ...question } = of;
    const done = await call('promiseFrom', { body: { ...question, map } });
    setBusy(false);
    setWrong(done.ok ? null : done.errors[0]!.sentence);
    if (!done.ok) return;
    setMade(done.value.id);
    say(`Promised in the draft: ${done.value.sentence}`);
    refresh();
  };
  if (made) return <ActLink href={`/promises/${made}`}>Read the promise</ActLink>;
  return (
    <>
      <Act disabled={busy} onClick={() => void promise()} aria-label={`This must stay so: ${about}`}>
        {busy ? 'Promising …' : 'This must stay so'}
      </Act>
      {wrong ? <Wrong>{wrong}</Wrong> : null}
    </>
  );
}
