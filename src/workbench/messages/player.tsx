'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { Pause, Play } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { SelectBox } from '@/ui/controls';
import { Wave } from '@/ui/wave';

const HEIGHT = 28;
const SPEEDS = ['0.75', '1', '1.25', '1.5', '2'];

const clock = (seconds: number) => `${Math.floor(seconds / 60)}:${String(Math.floor(seconds) % 60).padStart(2, '0')}`;

/** Plays a message: its wave to go to any place of it, and how fast. `onHeard` comes when its end was heard. */
export function MessagePlayer({
  src,
  name,
  seconds,
  peaks,
  onHeard,
}: {
  src: string;
  /** for screen readers */
  name: string;
  seconds: number;
  peaks: readonly number[];
  onHeard: () => void;
}) {
  const audio = useRef<HTMLAudioElement>(null);
  const [playing, setPlaying] = useState(false);
  const [at, setAt] = useState(0);
  const [speed, setSpeed] = useState('1');
  const [wrong, setWrong] = useState<string | null>(null);
  useEffect(() => {
    const player = audio.current;
    return () => player?.pause();
  }, []);
  const toggle = () => {
    const player = audio.current;
    if (!player) return;
    if (playing) return player.pause();
    setWrong(null);
    player.playbackRate = Number(speed);
    player.play().catch(() => setWrong('The message can’t be played; it may be gone.'));
  };
  const go = (to: number) => {
    setAt(to);
    if (audio.current) audio.current.currentTime = to;
  };
  const faster = (next: string) => {
    setSpeed(next);
    if (audio.current) audio.current.playbackRate = Number(next);
  };
  return (
    <Box>
      <Flex align="center" gap="8px">
        <chakra.button
          type="button"
          aria-label={playing ? `Pause ${name}` : `Play ${name}`}
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
        <Box flex="1" minW="60px" position="relative" h={`${HEIGHT}px`}>
          <Wave peaks={peaks} heard={seconds > 0 ? at / seconds : 0} height={HEIGHT} />
          <chakra.input
            type="range"
            aria-label={`Place in ${name}`}
            aria-valuetext={`${clock(at)} of ${clock(seconds)}`}
            min={0}
            max={seconds}
            step={0.1}
            value={Math.min(at, seconds)}
            onChange={(e) => go(Number(e.target.value))}
            position="absolute"
            inset={0}
            w="100%"
            h="100%"
            opacity={0}
            cursor="pointer"
            css={{ '&:focus-visible': { opacity: 0.35 } }}
          />
        </Box>
        <chakra.span fontFamily="mono" fontSize="13px" color="quiet" flexShrink={0}>
          {clock(playing || at > 0 ? at : seconds)}
        </chakra.span>
        <SelectBox
          w="64px"
          h="28px"
          aria-label={`Speed of ${name}`}
          value={speed}
          onChange={(e) => faster(e.target.value)}
        >
          {SPEEDS.map((s) => (
            <option key={s} value={s}>
              {s} ×
            </option>
          ))}
        </SelectBox>
      </Flex>
      <audio
        ref={audio}
        src={src}
        preload="none"
        onPlay={() => setPlaying(true)}
        onPause={() => setPlaying(false)}
        onEnded={() => {
          setAt(0);
          onHeard();
        }}
        onTimeUpdate={(e) => setAt(e.currentTarget.currentTime)}
      />
      {wrong ? (
        <Box role="alert" color="brick" fontSize="13px">
          {wrong}
        </Box>
      ) : null}
    </Box>
  );
}
