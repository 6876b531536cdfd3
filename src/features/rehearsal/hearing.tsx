'use client';

import { useEffect, useRef } from 'react';
import { addressOf } from '@/workbench/api';
import type { Line, Sound } from './run';

/** Where what is heard can be fetched: a recording, or a phrase as it is spoken. */
const addressOfSound = ({ sound, phrase, language, figure }: Sound): string =>
  sound
    ? addressOf('sound', { params: { id: sound }, query: {} })
    : addressOf('phraseSound', { params: { phrase: phrase!, language }, query: { figure: figure ?? undefined } });

/** Plays the recording that is heard now, from where the call is. */
export function Hearing({ lines, now, on }: { lines: readonly Line[]; now: number; on: boolean }) {
  const audio = useRef<HTMLAudioElement>(null);
  const current = on
    ? lines.find(
        (l) =>
          (l.sound?.sound ?? l.sound?.phrase) && l.atSeconds <= now + 0.05 && now < l.atSeconds + l.sound.heardSeconds,
      )
    : undefined;
  const sound = current ? addressOfSound(current.sound!) : null;
  const begun = current ? current.atSeconds : 0;
  const at = useRef(0);
  useEffect(() => {
    at.current = now;
  });
  useEffect(() => {
    const player = audio.current!;
    if (sound === null) return player.pause();
    player.src = sound;
    player.currentTime = Math.max(0, at.current - begun);
    void player.play().catch(() => undefined);
    return () => player.pause();
  }, [sound, begun]);
  return <audio ref={audio} preload="auto" aria-hidden />;
}
