'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { Pause, Play } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { Wave } from '@/ui/wave';
import { addressOf } from './api';
import { useAsked } from './use-asked';

const clock = (seconds: number) => `${Math.floor(seconds / 60)}:${String(Math.floor(seconds) % 60).padStart(2, '0')}`;

const HEIGHT = 36;

/** A sound small: its wave, how long it is, and a button that plays it. */
export function SoundStrip({ sound, name, seconds }: { sound: string; name: string; seconds: number }) {
  const facts = useAsked('soundFacts', { params: { id: sound } }, { keep: true });
  const audio = useRef<HTMLAudioElement>(null);
  const [playing, setPlaying] = useState(false);
  const [at, setAt] = useState(0);
  const [wrong, setWrong] = useState<string | null>(null);
  useEffect(() => {
    const player = audio.current;
    return () => player?.pause();
  }, []);
  const toggle = () => {
    const player = audio.current;
    if (!player) return;
    if (playing) return player.pause();
    player.play().catch(() => setWrong('The browser can’t play it.'));
  };
  const peaks = facts.value?.facts.peaks ?? [];
  const heard = seconds > 0 ? at / seconds : 0;
  return (
    <Box>
      <Flex align="center" gap="8px">
        <chakra.button
          type="button"
          aria-label={playing ? `Stop ${name}` : `Play ${name}`}
          border="1px solid"
          borderColor="fieldLine"
          rounded="4px"
          w="32px"
          h="32px"
          display="flex"
          alignItems="center"
          justifyContent="center"
          flexShrink={0}
          onClick={toggle}
        >
          {playing ? <Pause size={15} aria-hidden /> : <Play size={15} aria-hidden />}
        </chakra.button>
        <Box flex="1" minW={0} h={`${HEIGHT}px`} aria-hidden>
          <Wave peaks={peaks} heard={heard} height={HEIGHT} />
        </Box>
        <chakra.span fontFamily="mono" fontSize="13px" color="quiet" flexShrink={0}>
          {clock(playing || at > 0 ? at : seconds)}
        </chakra.span>
      </Flex>
      {/* What is said stands beneath it as text. */}
      <audio
        ref={audio}
        src={addressOf('sound', { params: { id: sound }, query: {} })}
        preload="none"
        onPlay={() => setPlaying(true)}
        onPause={() => setPlaying(false)}
        onEnded={() => setAt(0)}
        onTimeUpdate={(e) => setAt(e.currentTarget.currentTime)}
      />
      {(wrong ?? facts.wrong) ? (
        <Box role="alert" color="brick" fontSize="13px">
          {wrong ?? facts.wrong}
        </Box>
      ) : null}
    </Box>
  );
}
