'use client';

import { chakra } from '@chakra-ui/react';
import { useState } from 'react';
import type { ListedProblem } from '@/contract/problems';
import { Act, Wrong } from '@/ui/controls';
import type { KeptAbout } from '@/ui/kept';
import { formFields } from './form-fields';
import { useActForm } from './use-act-form';

const DAY_MS = 86_400_000;
const USUAL_DAYS = 90;
const usualDay = () => new Date(Date.now() + USUAL_DAYS * DAY_MS).toISOString().slice(0, 10);

/** Why a problem may stay as it is, and until when. */
export default function MuteForm({
  named,
  keep,
  onDone,
}: {
  named: { type: string; kind: ListedProblem['object']['kind']; id: string };
  /** where what is typed is kept, and what it is called there */
  keep: { key: string; about: KeptAbout };
  onDone: () => void;
}) {
  const [first] = useState(usualDay);
  const { form, submit, busy, general, clear } = useActForm<'muteProblem', { reason: string; until: string }>({
    operation: 'muteProblem',
    checked: false,
    defaults: { reason: '', until: first },
    input: (typed) => ({ body: { ...named, ...typed } }),
    unsaid: ({ reason }) => (reason.trim() === '' ? [{ field: 'reason', sentence: 'Say why it may stay.' }] : []),
    fieldOf: (path) => (path === 'reason' || path === 'until' ? path : null),
    keep,
    onMade: () => {
      clear();
      onDone();
    },
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
