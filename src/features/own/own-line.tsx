'use client';

import { Flex } from '@chakra-ui/react';
import { Glyph } from '@/ui/glyph';
import { TimeLine, type TimeBar } from '@/ui/time-line';

/** Who rings from when to when, as it is typed, and the mailbox at the end. */
export function OwnLine({
  steps,
  digits,
  mailbox,
}: {
  steps: readonly { rings: string; seconds: string; together: boolean }[];
  /** of the extension itself */
  digits: string;
  mailbox: boolean;
}) {
  const bars: TimeBar[] = [];
  let [begin, until] = [0, 0];
  for (const [i, s] of steps.entries()) {
    const seconds = Number(s.seconds);
    if (s.rings.trim() === '' || !(seconds > 0) || seconds > 180) continue;
    if (!s.together) begin = until;
    const name = s.rings.trim() === digits ? 'my phone' : s.rings;
    const span = { from: begin, until: begin + seconds };
    until = Math.max(until, span.until);
    bars.push({
      id: String(i),
      name,
      says: `${name} rings from second ${span.from} to ${span.until}`,
      spans: [span],
      look: 'rings',
    });
  }
  if (bars.length === 0) return null;
  return (
    <TimeLine
      label="Who rings when"
      bars={bars}
      whole={until}
      end={
        <Flex gap="7px" align="flex-start">
          <Glyph kind={mailbox ? 'mailbox' : 'tone'} />
          <span>
            after {until} s {mailbox ? 'my mailbox' : 'the call ends'}
          </span>
        </Flex>
      }
    />
  );
}
