'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { Volume2 } from 'lucide-react';
import { Glyph } from '@/ui/glyph';
import { useWriting } from '@/ui/time';
import type { Done, Line } from './run';

const clock = (seconds: number) => `${Math.floor(seconds / 60)}:${String(Math.floor(seconds % 60)).padStart(2, '0')}`;

/** How far the call is, and when that is. */
export function Clock({ now, end, at, zone }: { now: number; end: number; at: string; zone: string }) {
  const write = useWriting();
  const moment = new Date(Date.parse(at) + now * 1000).toISOString();
  return (
    <chakra.span ml="auto" color="quiet" fontSize="13px">
      <chakra.b fontFamily="mono" color="ink" data-testid="clock">
        {clock(now)}
      </chakra.b>{' '}
      of {clock(end)} · {write(moment, { zone, weekday: true })}
    </chakra.span>
  );
}

/** What happened until now, line by line; what is being heard stands out. */
export function Transcript({
  lines,
  now,
  done,
  over,
}: {
  lines: readonly Line[];
  now: number;
  done: Done;
  over: boolean;
}) {
  const until = lines.filter((l) => l.atSeconds <= now + 0.05);
  return (
    <Box as="section" aria-label="What happens" aria-live="polite" data-testid="transcript">
      {until.map((l, i) => {
        const sounding = l.sound !== null && now < l.atSeconds + l.sound.heardSeconds;
        return (
          <Flex key={i} gap="12px" py="4px" borderBottom="1px solid" borderColor="line" align="flex-start">
            <chakra.span fontFamily="mono" fontSize="13px" color="quiet" w="40px" flexShrink={0}>
              {clock(l.atSeconds)}
            </chakra.span>
            <Box w="18px" flexShrink={0} pt="2px">
              {l.type === 'heard' ? <Volume2 size={15} aria-label="heard" /> : null}
              {l.type === 'offer' ? <Glyph kind={l.lands!.kind} /> : null}
            </Box>
            <Box
              flex="1"
              minW={0}
              fontWeight={sounding || l.type === 'key' ? 700 : 400}
              color={l.type === 'step' ? 'quiet' : 'ink'}
            >
              {l.type === 'heard' ? `“${l.text}”` : l.type === 'offer' ? `At ${l.text}` : l.text}
              {l.sound ? (
                <chakra.span color="quiet" fontSize="13px" fontWeight={400} ml="8px">
                  {l.sound.object.label} · {l.sound.language} · {Math.round(l.sound.heardSeconds * 10) / 10} s
                  {l.sound.heardSeconds < l.sound.seconds ? ` of ${l.sound.seconds}` : ''}
                </chakra.span>
              ) : null}
            </Box>
          </Flex>
        );
      })}
      {done.answered ? (
        <Flex gap="12px" py="6px">
          <chakra.span fontFamily="mono" fontSize="13px" w="40px">
            {clock(done.answered.atSeconds)}
          </chakra.span>
          <b>{done.answered.label} answers.</b>
        </Flex>
      ) : over ? (
        <Box py="6px" color="quiet">
          Nothing more happens by itself.
        </Box>
      ) : null}
    </Box>
  );
}
