'use client';

import { Box, Flex } from '@chakra-ui/react';
import { Suspense, lazy, useState } from 'react';
import type { ListedProblem } from '@/contract/problems';
import { Act, Wrong } from '@/ui/controls';
import { Time } from '@/ui/time';
import { useIsKept } from '@/ui/kept';
import { useRefresh } from '@/ui/refresh';
import { say } from '@/ui/toasts';
import { call } from './api';
import { useAccount } from './edits';

/** Forms are seldom opened: they come when they are. */
const MuteForm = lazy(() => import('./mute-form'));

/** What can be done about a problem at once: what its button says, or leave it as it is for a time. */
export function ProblemActs({ problem: p }: { problem: ListedProblem }) {
  const refresh = useRefresh();
  const [busy, setBusy] = useState(false);
  const [wrong, setWrong] = useState<string | null>(null);
  const named = { type: p.type, kind: p.object.kind, id: p.object.id };
  // A reason that was begun is there again when the list was drawn anew, or its reader comes back.
  const key = `${useAccount()} leave-as-it-is ${named.type} ${named.kind} ${named.id}`;
  const isBegun = useIsKept(key);
  const [opened, setOpened] = useState<boolean | null>(null);
  const asking = opened ?? isBegun;
  const mend = async () => {
    setBusy(true);
    const done = await call('mendProblem', { body: named });
    setBusy(false);
    setWrong(done.ok ? null : done.errors[0]!.sentence);
    if (done.ok) say(`In the draft: ${done.value.label}. Ctrl Z takes it back.`);
    refresh();
  };
  const count = async () => {
    if (!p.muted) return;
    const done = await call('unmuteProblem', { params: { id: p.muted.id } });
    setWrong(done.ok ? null : done.errors[0]!.sentence);
    refresh();
  };
  return (
    <>
      {p.muted ? (
        <Box color="quiet" fontSize="13px">
          Left as it is by {p.muted.by} until <Time iso={p.muted.until} />: {p.muted.reason}
        </Box>
      ) : null}
      <Flex gap="12px" mt="2px" fontSize="13px" align="center" wrap="wrap">
        {p.button ? (
          <Act
            h="24px"
            disabled={busy}
            onClick={() => void mend()}
            aria-label={`${p.button}: ${p.object.label}, ${p.sentence}`}
          >
            {busy ? 'Mending …' : p.button}
          </Act>
        ) : null}
        <Act
          look="text"
          h="22px"
          // Its words begin where the sentence above does.
          ml={p.button ? undefined : '-5px'}
          onClick={() => (p.muted ? void count() : setOpened(!asking))}
          aria-expanded={p.muted ? undefined : asking}
          aria-label={`${p.muted ? 'Count it again' : 'Leave it as it is'}: ${p.object.label}, ${p.sentence}`}
        >
          {p.muted ? 'Count it again' : 'Leave it as it is…'}
        </Act>
      </Flex>
      {wrong ? <Wrong>{wrong}</Wrong> : null}
      {asking ? (
        <Suspense fallback={null}>
          <MuteForm
            named={named}
            keep={{ key, about: { title: `Why it may stay: ${p.sentence}`, path: '/problems' } }}
            onDone={() => {
              setOpened(null);
              refresh();
            }}
          />
        </Suspense>
      ) : null}
    </>
  );
}
