'use client';

import { Box, Flex } from '@chakra-ui/react';
import type { Leave } from '@/contract/going-live';
import { Act, AreaBox, Wrong } from '@/ui/controls';
import { formFields } from '@/workbench/form-fields';
import { useActForm } from '@/workbench/use-act-form';

interface Typed {
  note: string;
  reason: string;
  at: string;
  tell: string;
}

const addresses = (text: string) => text.split(/[\s,;]+/).filter(Boolean);
const NOTES = {
  at: 'By the clock of this computer. It is checked again then, and refused if something stands against it.',
  tell: 'Addresses of mail, with commas between. They are told what became of it.',
};

/** Has the draft go live at a time, or when a second person agrees. */
export function PlanPart({
  keptAs,
  draftVersion,
  leave,
  needsReason,
  secondPerson,
  onPlanned,
  onClose,
}: {
  /** under which what is typed is kept */
  keptAs: string;
  draftVersion: number;
  leave: Leave[];
  /** errors stand against it, and it is to go live in spite of them */
  needsReason: boolean;
  secondPerson: boolean;
  onPlanned: () => void;
  onClose: (() => void) | null;
}) {
  const { form, submit, busy, general, clear } = useActForm<'planGoing', Typed>({
    operation: 'planGoing',
    checked: false,
    defaults: { note: '', reason: '', at: '', tell: '' },
    input: ({ note, reason, at, tell }) => ({
      body: {
        draftVersion,
        note,
        override: needsReason ? reason : '',
        leave,
        at: at === '' ? null : new Date(at).toISOString(),
        tell: addresses(tell),
      },
    }),
    unsaid: ({ at, reason }) => [
      ...(at === '' && !secondPerson ? [{ field: 'at' as const, sentence: 'Say when.' }] : []),
      ...(needsReason && reason.trim() === ''
        ? [{ field: 'reason' as const, sentence: 'Say why it goes live in spite of its errors.' }]
        : []),
    ],
    fieldOf: (path) =>
      path === 'note' || path === 'at'
        ? path
        : path.startsWith('tell')
          ? 'tell'
          : path === 'override'
            ? 'reason'
            : null,
    keep: { key: keptAs, about: null },
    onMade: () => {
      clear();
      onPlanned();
    },
  });
  const { field, text } = formFields(form, { prefix: 'later', notes: NOTES, beneath: true });
  return (
    <form noValidate onSubmit={(e) => void submit(e)} data-testid="plan-going">
      {text('at', secondPerson ? 'When; empty: as soon as somebody agrees' : 'When', { type: 'datetime-local' })}
      {field('note', 'Note for whoever looks later', ({ change, ...rest }) => (
        <AreaBox {...rest} maxLength={500} onChange={(e) => change(e.target.value)} />
      ))}
      {needsReason
        ? field('reason', 'Why it goes live in spite of its errors', ({ change, ...rest }) => (
            <AreaBox {...rest} maxLength={500} onChange={(e) => change(e.target.value)} />
          ))
        : null}
      {text('tell', 'Who is told by mail', { placeholder: 'nobody' })}
      {general ? (
        <Box mt="8px">
          <Wrong>{general}</Wrong>
        </Box>
      ) : null}
      <Flex gap="8px" mt="10px" wrap="wrap">
        <Act look="main" type="submit" disabled={busy} data-testid="plan-it">
          {busy ? 'Checking …' : secondPerson ? 'Ask a second person' : 'Go live then'}
        </Act>
        {onClose ? <Act onClick={onClose}>Go live now instead</Act> : null}
      </Flex>
    </form>
  );
}
