'use client';

import { Box } from '@chakra-ui/react';
import type { OneCall } from '@/contract/records';
import { ActLink } from '@/ui/controls';
import { Time, useWriting } from '@/ui/time';
import { addressOf } from '@/workbench/api';
import { MessagePlayer } from '@/workbench/messages/player';

/** The recording of a call: played where the reader's role lets them, with who heard it and until when it is kept. */
export function RecordingOf({ call }: { call: OneCall }) {
  const write = useWriting();
  const kept = call.recording;
  if (!kept) return <>One was made; it is not kept here, or was kept long enough.</>;
  const source = (file: '' | 'yes') => addressOf('recordingSound', { params: { key: call.row.key }, query: { file } });
  return (
    <Box fontSize="13px" data-testid="recording">
      {kept.peaks ? (
        <>
          <MessagePlayer
            src={source('')}
            name={`the recording of ${call.row.from.label} to ${call.row.to.label}`}
            seconds={kept.seconds}
            peaks={kept.peaks}
            onHeard={() => {}}
          />
          <Box mt="6px">
            <ActLink href={source('yes')} download>
              Download
            </ActLink>
          </Box>
          <Box color="quiet" mt="6px">
            Each listening is put on record.
          </Box>
        </>
      ) : (
        <Box>
          {Math.round(kept.seconds)} seconds are kept. Your role does not let you hear them: one that is granted “hear
          recordings of calls” does.
        </Box>
      )}
      {kept.until ? (
        <Box color="quiet" mt="4px">
          Kept until {write(kept.until, { dayOnly: true })}.
        </Box>
      ) : null}
      {kept.heard.map((h) => (
        <Box key={`${h.name} ${h.at}`} mt="2px">
          {h.name} heard it <Time iso={h.at} />
        </Box>
      ))}
    </Box>
  );
}
