'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import { useWatch } from 'react-hook-form';
import type { Answer } from '@/contract';
import type { Leave } from '@/contract/going-live';
import { Act, AreaBox, PartTitle, Wrong } from '@/ui/controls';
import { useKinds } from '@/ui/kinds';
import { Link } from '@/ui/link';
import { formFields } from '@/workbench/form-fields';
import { useActForm } from '@/workbench/use-act-form';
import { useIsKept } from '@/ui/kept';
import { Time } from '@/ui/time';
import { PlanPart } from './plan-part';

type Problem = Answer<'leaving'>['gate']['errors'][number];

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
  leave,
  busy: waiting = false,
  policy,
  onGone,
  onPlanned,
}: {
  gate: GateData;
  account: string;
  mayOverride: boolean;
  edits: string;
  draftVersion: number;
  revision: number;
  /** what is left for later */
  leave: Leave[];
  /** what this says is being looked up anew */
  busy?: boolean;
  policy: { secondPerson: boolean; quietUntil: number | null };
  onPlanned: () => void;
  onGone: (number: number) => void;
}) {
  const barred = gate.emergency.length > 0;
  const isQuiet = policy.quietUntil !== null;
  const needsReason = gate.errors.length > 0 || isQuiet;
  const { form, submit, busy, general, clear } = useActForm<'goLive', { note: string; reason: string }>({
    operation: 'goLive',
    checked: false,
    defaults: { note: '', reason: '' },
    input: ({ note, reason }) => ({ body: { draftVersion, note, override: needsReason ? reason : '', leave } }),
    unsaid: ({ reason }) =>
      needsReason && reason.trim() === '' ? [{ field: 'reason', sentence: 'Say why it goes live all the same.' }] : [],
    fieldOf: (path) => (path === 'note' ? 'note' : path === 'override' && needsReason ? 'reason' : null),
    keep: { key: `${account} go-live`, about: null },
    onMade: ({ number }) => {
      clear();
      onGone(number);
    },
  });
  // A time that was begun to be set is still what is meant after something was left for later, or on coming back.
  const planKey = `${account} go-live-later`;
  const isBegun = useIsKept(planKey);
  const [opened, setLater] = useState<boolean | null>(null);
  const later = opened ?? isBegun;
  const { field } = formFields(form, { prefix: 'live' });
  const reason = useWatch({ control: form.control, name: 'reason' });
  const said = barred
    ? 'Emergency calls would not get out, or not as they must. Nobody can let that through: mend it first.'
    : needsReason && !mayOverride
      ? isQuiet && gate.errors.length === 0
        ? 'Only whoever manages administrators makes something live at this time.'
        : 'Errors stand against it. Mend them, or ask whoever manages administrators to let them through.'
      : null;
  if (!said && (later || policy.secondPerson))
    return (
      <PlanPart
        keptAs={planKey}
        draftVersion={draftVersion}
        leave={leave}
        needsReason={gate.errors.length > 0}
        secondPerson={policy.secondPerson}
        onPlanned={() => {
          setLater(null);
          onPlanned();
        }}
        onClose={policy.secondPerson ? null : () => setLater(false)}
      />
    );
  return (
    <form noValidate onSubmit={(e) => void submit(e)}>
      {policy.quietUntil !== null ? (
        <Box mb="8px" color="brick" data-testid="quiet-time">
          Nothing goes live at this time of the week; it may again from{' '}
          <Time iso={new Date(policy.quietUntil).toISOString()} />.
        </Box>
      ) : null}
      {field('note', 'Note for whoever looks later', ({ change, ...rest }) => (
        <AreaBox {...rest} maxLength={500} placeholder="Why these changes" onChange={(e) => change(e.target.value)} />
      ))}
      {needsReason && mayOverride && !barred ? (
        <Box mt="10px">
          {field(
            'reason',
            gate.errors.length > 0
              ? 'Why it goes live in spite of its errors (kept with the revision)'
              : 'Why it goes live at this time (kept with the revision)',
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
          disabled={busy || waiting || (needsReason && reason.trim() === '')}
          data-testid="go-live"
        >
          {busy
            ? 'Going live …'
            : gate.errors.length > 0
              ? `Go live with ${edits} and their errors`
              : `Go live with ${edits}`}
        </Act>
      )}
      {said ? null : (
        <Act mt="8px" h="26px" onClick={() => setLater(true)}>
          At a time…
        </Act>
      )}
      <Box color="quiet" mt="8px">
        {leave.length > 0 ? 'These' : 'All of them'} at once, as revision {revision}. You can bring any revision back.
      </Box>
    </form>
  );
}
