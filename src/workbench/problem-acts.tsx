'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import type { ListedProblem } from '@/contract/plan';
import { Act, Wrong } from '@/ui/controls';
import { Time } from '@/ui/time';
import { useRefresh } from '@/ui/refresh';
import { say } from '@/ui/toasts';
import { call } from './api';
import { formFields } from './form-fields';
import { useActForm } from './use-act-form';

/** What can be done about a problem at once: what its button says, or leave it as it is for a time. */
export function ProblemActs({ problem: p }: { problem: ListedProblem }) {
  const refresh = useRefresh();
  const [asking, setAsking] = useState(false);
  const [busy, setBusy] = useState(false);
  const [wrong, setWrong] = useState<string | null>(null);
  const named = { type: p.type, kind: p.object.kind, id: p.object.id };
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
      <Flex gap="12px" fontSize="13px" align="center" wrap="wrap">
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
          onClick={() => (p.muted ? void count() : setAsking(!asking))}
          aria-expanded={p.muted ? undefined : asking}
          aria-label={`${p.muted ? 'Count it again' : 'Leave it as it is'}: ${p.object.label}, ${p.sentence}`}
        >
          {p.muted ? 'Count it again' : 'Leave it as it is…'}
        </Act>
      </Flex>
      {wrong ? <Wrong>{wrong}</Wrong> : null}
      {asking ? (
        <MuteForm
          named={named}
          onDone={() => {
            setAsking(false);
            refresh();
          }}
        />
      ) : null}
    </>
  );
}

const DAY_MS = 86_400_000;
const USUAL_DAYS = 90;
const usualDay = () => new Date(Date.now() + USUAL_DAYS * DAY_MS).toISOString().slice(0, 10);

function MuteForm({
  named,
  onDone,
}: {
  named: { type: string; kind: ListedProblem['object']['kind']; id: string };
  onDone: () => void;
}) {
  const [first] = useState(usualDay);
  const { form, submit, busy, general } = useActForm<'muteProblem', { reason: string; until: string }>({
    operation: 'muteProblem',
    checked: false,
    defaults: { reason: '', until: first },
    input: (typed) => ({ body: { ...named, ...typed } }),
    unsaid: ({ reason }) => (reason.trim() === '' ? [{ field: 'reason', sentence: 'Say why it may stay.' }] : []),
    fieldOf: (path) => (path === 'reason' || path === 'until' ? path : null),
    onMade: onDone,
  });
  const { text } = formFields(form, { prefix: `mute-${named.type}-${named.id}` });
  return (
    <chakra.form noValidate onSubmit={(e) => void submit(e)} maxW="520px" mt="6px" mb="8px" data-testid="mute">
      {text('reason', 'Why it may stay', { maxLength: 300 })}
      {text('until', 'Until the end of', { type: 'date' })}
      {general ? <Wrong>{general}</Wrong> : null}
      <Act mt="8px" type="submit" disabled={busy}>
        {busy ? 'Taking note …' : 'Leave it as it is'}
      </Act>
    </chakra.form>
  );
}
