'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { Mic, Square } from 'lucide-react';
import { lazy, Suspense, useEffect, useRef, useState } from 'react';
import type { SoundKnown } from '@/contract/sounds';
import { saysFigure, secondsToSay } from '@/core/plan/facts/phrases';
import { Act, ActLink, Wrong } from '@/ui/controls';
import { FileAct } from '@/ui/file-act';
import { addressOf, call, sendFile, type ApiResult } from '@/workbench/api';
import { useAsked } from '@/workbench/use-asked';
import type { VersionShown } from './data';

/** It is seldom opened, and draws what it plays: it comes when it is. */
const Trimmer = lazy(() => import('./trimmer').then((m) => ({ default: m.Trimmer })));

const level = (value: number | null) => (value === null ? '' : `${value.toFixed(1)} LUFS`);

/** The sound of one version of a prompt: where it comes from, what is wrong with it, and what was made of it. */
export function SoundPart({
  name,
  version,
  phrase,
  canEdit,
  onSound,
}: {
  name: string;
  version: VersionShown;
  /** it takes the place of what the exchange says itself */
  phrase: boolean;
  canEdit: boolean;
  /** a sound is there; its length comes with it */
  onSound: (sound: Pick<SoundKnown, 'id' | 'seconds'> | null) => void;
}) {
  const [busy, setBusy] = useState<string | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const [trimming, setTrimming] = useState(false);
  const known = useAsked('soundFacts', version.sound ? { params: { id: version.sound } } : null, { keep: true });
  const speech = useAsked('speech', canEdit ? {} : null);
  const take = async (what: string, asked: Promise<ApiResult<SoundKnown>>) => {
    setBusy(what);
    setWrong(null);
    const made = await asked;
    setBusy(null);
    if (made.ok) onSound({ id: made.value.id, seconds: made.value.seconds });
    else setWrong(made.errors[0]!.sentence);
  };
  const speak = () =>
    void take('Speaking …', call('speak', { body: { text: version.text, language: version.language } }));
  const facts = version.sound ? known.value?.facts : null;
  return (
    <Box>
      {version.sound && trimming ? (
        <Suspense fallback={<Box minH="120px" />}>
          <Trimmer
            sound={version.sound}
            onClose={() => setTrimming(false)}
            onCut={(cut) => {
              setTrimming(false);
              onSound(cut);
            }}
          />
        </Suspense>
      ) : null}
      {facts ? (
        <Box fontSize="13px" color="quiet" mb="6px">
          Came as {facts.format}, {facts.rate.toLocaleString('en')} samples a second, {facts.channels}{' '}
          {facts.channels === 1 ? 'channel' : 'channels'}, {level(facts.loudness)}
          {facts.gain === 0 ? '' : `; ${facts.gain > 0 ? 'raised' : 'lowered'} by ${Math.abs(facts.gain)} dB`}. Kept as
          one channel at 16,000 and 8,000.
        </Box>
      ) : null}
      {phrase && saysFigure(version.text) ? (
        <Box fontSize="13px" color="quiet" mb="6px">
          What stands in braces is said as it is at the time: the text is spoken then, and no recording is heard.
        </Box>
      ) : null}
      {facts?.said && facts.said !== version.text ? (
        <Box fontSize="13px" color="saffronText" mb="6px" data-testid="sound-says">
          The sound says another text than the one above: “
          {facts.said.length > 120 ? `${facts.said.slice(0, 120)}…` : facts.said}”.
        </Box>
      ) : null}
      {facts?.faults.map((f) => (
        <Box key={f.code} fontSize="13px" color="saffronText">
          {f.sentence}
        </Box>
      ))}
      {wrong ? (
        <Box mb="6px">
          <Wrong>{wrong}</Wrong>
        </Box>
      ) : null}
      {canEdit ? (
        <Flex gap="8px" mt="8px" wrap="wrap" align="center">
          <Act disabled={busy !== null || version.text.trim() === '' || !!speech.value?.missing} onClick={speak}>
            {version.sound ? 'Speak the text again' : 'Speak the text'}
          </Act>
          <Recorder
            disabled={busy !== null}
            onTaken={(wav) => void take('Taking the recording …', sendFile('addSound', {}, wav))}
            onWrong={setWrong}
          />
          <FileAct
            label="Sound file"
            accept=".wav,.mp3,audio/wav,audio/mpeg"
            onFile={(file) => void take('Reading the file …', sendFile('addSound', {}, file))}
          >
            Upload WAV or MP3…
          </FileAct>
          {version.sound ? (
            <>
              <Act aria-expanded={trimming} onClick={() => setTrimming(!trimming)}>
                Trim and fade
              </Act>
              <ActLink href={addressOf('sound', { params: { id: version.sound }, query: { name } })} download>
                Save as WAV
              </ActLink>
              <Act onClick={() => onSound(null)}>Take the sound off</Act>
            </>
          ) : null}
          {busy ? (
            <chakra.span role="status" color="quiet">
              {busy}
            </chakra.span>
          ) : null}
        </Flex>
      ) : null}
      {canEdit && speech.value?.missing ? (
        <Box fontSize="13px" color="saffronText" mt="6px">
          {speech.value.missing}
        </Box>
      ) : null}
      {version.sound === null ? (
        <Box fontSize="13px" color="quiet" mt="6px">
          {phrase ? 'Nothing is recorded: the text is spoken.' : 'Nothing is recorded: callers hear silence.'}{' '}
          {version.text ? `Spoken, it takes about ${secondsToSay(version.text)} s.` : ''}
        </Box>
      ) : null}
    </Box>
  );
}

/** Records from the microphone until it is stopped; what was recorded comes as a WAV file. */
function Recorder({
  disabled,
  onTaken,
  onWrong,
}: {
  disabled: boolean;
  onTaken: (wav: Blob) => void;
  onWrong: (sentence: string) => void;
}) {
  const running = useRef<{ stop: () => Promise<Blob> } | null>(null);
  const [since, setSince] = useState<number | null>(null);
  const [seconds, setSeconds] = useState(0);
  useEffect(() => {
    if (since === null) return;
    const tick = setInterval(() => setSeconds(Math.floor((Date.now() - since) / 1000)), 250);
    return () => clearInterval(tick);
  }, [since]);
  useEffect(() => () => void running.current?.stop(), []);
  const begin = async () => {
    const { record } = await import('./record');
    try {
      running.current = await record();
      setSeconds(0);
      setSince(Date.now());
    } catch {
      onWrong('The microphone can’t be used: allow it for this page in the browser.');
    }
  };
  const end = async () => {
    const wav = await running.current!.stop();
    running.current = null;
    setSince(null);
    onTaken(wav);
  };
  return since === null ? (
    <Act disabled={disabled} onClick={() => void begin()}>
      <Mic size={14} aria-hidden /> Record here
    </Act>
  ) : (
    <Act look="main" onClick={() => void end()}>
      <Square size={13} aria-hidden /> Stop recording, {seconds} s
    </Act>
  );
}
