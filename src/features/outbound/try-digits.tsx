'use client';

import { Box, Flex } from '@chakra-ui/react';
import { Link } from '@/ui/link';
import { useEffect, useState } from 'react';
import type { Trace } from '@/core/routing';
import { call } from '@/workbench/api';
import { Digits } from '@/ui/digits';
import { endOf } from '@/ui/ends';
import { Glyph } from '@/ui/glyph';
import { PaneSection } from '@/ui/workspace';
import { tracePath } from '@/workbench/paths';
import type { OutboundData } from './data';

/** Asks the draft what some digits do, while they are typed. */
export function useTry(phone: string, dial: string): { trace: Trace | null; wrong: string | null } {
  const [state, setState] = useState<{ trace: Trace | null; wrong: string | null }>({ trace: null, wrong: null });
  useEffect(() => {
    const stop = new AbortController();
    const timer = setTimeout(async () => {
      if (dial.trim() === '') return setState({ trace: null, wrong: null });
      const got = await call('traceGet', { query: { from: phone, dial, of: 'draft' } }, stop.signal);
      if (!stop.signal.aborted)
        setState(got.ok ? { trace: got.value, wrong: null } : { trace: null, wrong: got.errors[0]!.sentence });
    }, 40);
    return () => {
      stop.abort();
      clearTimeout(timer);
    };
  }, [phone, dial]);
  return state;
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
