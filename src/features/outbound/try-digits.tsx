'use client';

import { Box, Flex } from '@chakra-ui/react';
import { Link } from '@/ui/link';
import type { Trace } from '@/core/routing';
import { useSettled } from '@/ui/settled';
import { useAsked } from '@/workbench/use-asked';
import { Digits } from '@/ui/digits';
import { endOf } from '@/ui/ends';
import { Glyph } from '@/ui/glyph';
import { PaneSection } from '@/ui/workspace';
import { tracePath } from '@/workbench/paths';
import type { OutboundData } from './data';

const PAUSE_MS = 40;

/** Asks the draft what some digits do, while they are typed. */
export function useTry(phone: string, dial: string): { trace: Trace | null; wrong: string | null } {
  const [from, digits] = JSON.parse(useSettled(JSON.stringify([phone, dial.trim()]), PAUSE_MS)) as [string, string];
  const asked = useAsked('traceGet', digits === '' ? null : { query: { from, dial: digits, of: 'draft' } }, {
    keep: true,
  });
  return { trace: asked.wrong ? null : asked.value, wrong: asked.wrong };
}

/** Which rule takes the tried digits, why not the others, and what leaves. */
export function TryPane({
  trace,
  data,
  phone,
  dial,
}: {
  trace: Trace | null;
  data: OutboundData;
  phone: string;
  dial: string;
}) {
  if (!trace)
    return (
      <PaneSection title="Try digits">
        <Box color="quiet">
          Type what somebody would dial: the rule that takes it is marked, and every rule above says why it did not.
        </Box>
      </PaneSection>
    );
  const rung = data.rungs.findIndex((r) => r.id === trace.rule);
  const others = trace.steps
    .flatMap((s) => s.notTaken)
    .filter((n) => n.rule !== 'emergency' && n.rule !== 'extensions');
  return (
    <>
      <PaneSection title={rung >= 0 ? `Rule ${rung + 1} fits` : trace.outcome}>
        <Flex gap="8px" align="center">
          <Glyph kind={endOf(trace)} />
          <b>{trace.lands?.label ?? trace.outcome}</b>
        </Flex>
        {trace.cause ? (
          <Box color="quiet">
            cause {trace.cause.q850}, SIP {trace.cause.sip}
          </Box>
        ) : null}
        <Box mt="6px">
          <Link href={tracePath(phone, dial)}>Open the trace</Link>
        </Box>
      </PaneSection>
      {others.length > 0 ? (
        <PaneSection title="Why not the others">
          {others.map((n) => (
            <Flex key={n.rule} gap="8px">
              <Box color="quiet" w="14px">
                {data.rungs.findIndex((r) => r.id === n.rule) + 1 || ''}
              </Box>
              <Box>{n.why}</Box>
            </Flex>
          ))}
        </PaneSection>
      ) : null}
      {trace.digitsSent ? (
        <PaneSection title="What leaves">
          <Box>
            sent <Digits>{trace.digitsSent}</Digits>
          </Box>
          <Box>
            shown <Digits>{trace.shownNumber ?? 'nothing'}</Digits>
          </Box>
          {trace.doubts.map((d) => (
            <Box key={d} color="saffronText" mt="4px">
              {d}
            </Box>
          ))}
        </PaneSection>
      ) : null}
    </>
  );
}
