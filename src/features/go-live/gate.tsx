'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { useWatch } from 'react-hook-form';
import type { Answer } from '@/contract';
import { Act, AreaBox, PartTitle, Wrong } from '@/ui/controls';
import { useKinds } from '@/ui/kinds';
import { Link } from '@/ui/link';
import { formFields } from '@/workbench/form-fields';
import { useActForm } from '@/workbench/use-act-form';

type Problem = Answer<'problems'>['problems'][number];

/** What stands between the draft and going live. */
export interface GateData {
  emergency: Problem[];
  errors: Problem[];
  standing: Problem[];
}

const LISTED = 12;

/** Errors that going live would bring, each with the way to it; and those that are live already. */
export function GateList({ gate }: { gate: GateData }) {
  const blocking = [...gate.emergency, ...gate.errors];
  return (
    <>
      {blocking.length > 0 ? (
        <Box
          border="1px solid"
          borderColor="brick"
          bg="brickTint"
          rounded="4px"
          p="12px"
          mb="14px"
          role="alert"
          data-testid="gate"
        >
          <PartTitle>
            {blocking.length === 1 ? 'An error stands' : `${blocking.length} errors stand`} between this and going live
          </PartTitle>
          <List problems={blocking} />
        </Box>
      ) : null}
      {gate.standing.length > 0 ? (
        <Box mb="14px">
          <PartTitle>Errors that are live already</PartTitle>
          <List problems={gate.standing} />
        </Box>
      ) : null}
    </>
  );
}

function List({ problems }: { problems: readonly Problem[] }) {
  const { pathOf } = useKinds();
  return (
    <>
      {problems.slice(0, LISTED).map((p, i) => (
        <Flex key={i} gap="10px" align="baseline" py="4px">
          <Box flex="1" minW={0}>
            {p.sentence} <chakra.span color="quiet">{p.mend}</chakra.span>
          </Box>
          <Link href={pathOf(p.object.kind, p.object.id) ?? '/'} aria-label={`Open ${p.object.label}`}>
            Open
          </Link>
        </Flex>
      ))}
      {problems.length > LISTED ? (
        <Box color="quiet">and {problems.length - LISTED} more, all of them on Today</Box>
      ) : null}
    </>
  );
}

/** The note, the reason where errors are let through, and the act. */
export function GoPart({
  gate,
  account,
  mayOverride,
  edits,
  draftVersion,
  revision,
  onGone,
}: {
  gate: GateData;
  account: string;
  mayOverride: boolean;
  edits: string;
  draftVersion: number;
  revision: number;
  onGone: (number: number) => void;
}) {
  const barred = gate.emergency.length > 0;
  const needsReason = gate.errors.length > 0;
  const { form, submit, busy, general, clear } = useActForm<'goLive', { note: string; reason: string }>({
    operation: 'goLive',
    checked: false,
    defaults: { note: '', reason: '' },
    input: ({ note, reason }) => ({ body: { draftVersion, note, override: needsReason ? reason : '' } }),
    unsaid: ({ reason }) =>
      needsReason && reason.trim() === ''
        ? [{ field: 'reason', sentence: 'Say why it goes live in spite of its errors.' }]
        : [],
    fieldOf: (path) => (path === 'note' ? 'note' : path === 'override' && needsReason ? 'reason' : null),
    keep: { key: `${account} go-live`, about: null },
    onMade: ({ number }) => {
      clear();
      onGone(number);
    },
  });
  const { field } = formFields(form, { prefix: 'live' });
  const reason = useWatch({ control: form.control, name: 'reason' });
  const said = barred
    ? 'Emergency calls would not get out, or not as they must. Nobody can let that through: mend it first.'
    : needsReason && !mayOverride
      ? 'Errors stand against it. Mend them, or ask whoever manages administrators to let them through.'
      : null;
  return (
    <form noValidate onSubmit={(e) => void submit(e)}>
      {field('note', 'Note for whoever looks later', ({ change, ...rest }) => (
        <AreaBox {...rest} maxLength={500} placeholder="Why these changes" onChange={(e) => change(e.target.value)} />
      ))}
      {needsReason && mayOverride && !barred ? (
        <Box mt="10px">
          {field(
            'reason',
            'Why it goes live in spite of its errors (kept with the revision)',
            ({ change, ...rest }) => (
              <AreaBox {...rest} maxLength={500} onChange={(e) => change(e.target.value)} />
            ),
          )}
        </Box>
      ) : null}
      {general ? (
        <Box mt="8px">
          <Wrong>{general}</Wrong>
        </Box>
      ) : null}
      {said ? (
        <Box color="brick" mt="8px">
          {said}
        </Box>
      ) : (
        <Act
          look="main"
          mt="10px"
          w="100%"
          h="34px"
          type="submit"
          disabled={busy || (needsReason && reason.trim() === '')}
          data-testid="go-live"
        >
          {busy ? 'Going live …' : needsReason ? `Go live with ${edits} and their errors` : `Go live with ${edits}`}
        </Act>
      )}
      <Box color="quiet" mt="8px">
        All of them at once, as revision {revision}. You can bring any revision back.
      </Box>
    </form>
  );
}
