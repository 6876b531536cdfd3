'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import type { Trace, TraceStep } from '@/core/routing';
import { Act } from '@/ui/controls';
import { endOf } from '@/ui/ends';
import { Glyph } from '@/ui/glyph';
import { useKinds } from '@/ui/kinds';
import { Link } from '@/ui/link';

const STEP_GLYPH: Record<TraceStep['type'], string> = {
  digits: 'number',
  rule: 'rule',
  right: 'rule',
  number: 'number',
  trunk: 'trunk',
  callerId: 'caller',
  emergency: 'refused',
  incoming: 'trunk',
  route: 'rule',
  service: 'rule',
  transfer: 'extension',
  destination: 'extension',
  end: 'outside',
};

/** One step of a trace as a sentence, with what was not taken and why. */
export function Step({ step, everyRule }: { step: TraceStep; everyRule: string }) {
  const [open, setOpen] = useState(step.notTaken.length <= 3);
  const { pathOf } = useKinds();
  const href = step.object ? pathOf(step.object.kind, step.object.id) : null;
  const doubt = /not-owned|other-length|other-country|shown-trunk|alarm/.test(step.code);
  return (
    <Flex gap="14px" py="8px" borderTop="1px solid" borderColor="line" align="flex-start" data-step={step.code}>
      <Box
        w="64px"
        whiteSpace="nowrap"
        textAlign="right"
        color="quiet"
        fontFamily="mono"
        fontSize="13px"
        flexShrink={0}
      >
        {step.atSeconds.toFixed(1)} s
      </Box>
      <Box pt="2px">
        <Glyph kind={step.object?.kind === 'mailbox' ? 'mailbox' : STEP_GLYPH[step.type]} />
      </Box>
      <Box flex="1" minW={0} color={doubt ? 'saffronText' : 'ink'}>
        {step.sentence}
        {step.notTaken.length > 0 ? (
          <Box fontSize="13px" color="quiet" mt="2px">
            {open ? (
              step.notTaken.map((n) => (
                <Box key={n.rule}>
                  not <b>{n.label}</b>: {n.why}
                  {n.count ? (
                    <>
                      {' '}
                      <Link href={everyRule}>Name each</Link>
                    </>
                  ) : null}
                </Box>
              ))
            ) : (
              <Act look="text" h="20px" fontSize="13px" onClick={() => setOpen(true)}>
                Why not the {step.notTaken.length} others
              </Act>
            )}
          </Box>
        ) : null}
      </Box>
      {href ? (
        <Box fontSize="13px" flexShrink={0}>
          <Link href={href}>{step.object!.label.slice(0, 28)}</Link>
        </Box>
      ) : null}
    </Flex>
  );
}

/** Where a call ends, with its glyph. */
export function End({ outcome, lands }: { outcome: string; lands: Trace['lands'] }) {
  return (
    <Flex gap="8px" align="center">
      <Glyph kind={endOf({ outcome, lands })} />
      <chakra.b overflowWrap="anywhere" minW={0}>
        {lands?.label ?? outcome}
      </chakra.b>
    </Flex>
  );
}

/** A named value of a call. */
export function Fact({ name, value }: { name: string; value: string }) {
  return (
    <Flex gap="8px">
      <Box color="quiet" w="78px" flexShrink={0}>
        {name}
      </Box>
      <Box fontFamily="mono" fontSize="13px">
        {value}
      </Box>
    </Flex>
  );
}
