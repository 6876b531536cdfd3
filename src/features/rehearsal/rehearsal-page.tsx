'use client';

import { Box, Flex, Grid } from '@chakra-ui/react';
import { Pause, Play, SkipForward, Volume2, VolumeX } from 'lucide-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import { Act, ActLink, Empty, PartTitle, Wrong } from '@/ui/controls';
import { CourseView } from '@/ui/course-view';
import { isTyping } from '@/ui/ledger-state';
import { Workspace } from '@/ui/workspace';
import { tracePath } from '@/workbench/paths';
import { QuestionForm } from '@/workbench/question-form';
import { useAsked } from '@/workbench/use-asked';
import { Pad, Who } from './callers-part';
import { Hearing } from './hearing';
import { KeepThis, KeptRehearsals } from './kept-rehearsals';
import { litUntil } from './lit';
import { NOTHING_DONE, lastSecond, linesOf, readDone, writeDone, type Done } from './run';
import { Clock, Transcript } from './transcript';

interface Start {
  from: string;
  dial: string;
  at: string;
  did: string;
  mayEdit: boolean;
}

/** Seconds between digits that are pressed while the clock stands still. */
const BETWEEN_KEYS = 0.5;
const TICK_MS = 100;
const SPEEDS = [1, 4] as const;

/** Plays the caller: what is heard, keys, who answers; the course shows where the call is. */
export function RehearsalPage({ start }: { start: Start }) {
  const [question, setQuestion] = useState({ from: start.from, dial: start.dial, at: start.at });
  const [done, setDone] = useState<Done>(() => readDone(start.did));
  const [now, setNow] = useState(0);
  const [playing, setPlaying] = useState(false);
  const [speed, setSpeed] = useState<number>(1);
  const [sounds, setSounds] = useState(true);
  const asked = useAsked(
    'rehearse',
    question.from && question.dial
      ? { body: { ...question, does: { keys: done.keys, busy: done.busy, away: done.away } } }
      : null,
    { keep: true, fresh: true },
  );
  const run = asked.value;
  const lines = useMemo(() => (run ? linesOf(run, done) : []), [run, done]);
  const last = lastSecond(lines);
  const end = done.answered ? done.answered.atSeconds : last;

  // The address is the rehearsal: whoever opens it plays the same call.
  useEffect(() => {
    const query = new URLSearchParams({ ...question, ...(writeDone(done) ? { did: writeDone(done) } : {}) });
    window.history.replaceState(null, '', `/rehearsal?${query}`);
  }, [question, done]);

  useEffect(() => {
    if (!playing) return;
    const tick = setInterval(() => setNow((t) => Math.min(end, t + (TICK_MS / 1000) * speed)), TICK_MS);
    return () => clearInterval(tick);
  }, [playing, speed, end]);
  const over = now >= end && run !== null && !asked.waiting;

  const press = (key: string) => {
    if (!run || done.answered) return;
    const at = Math.max(now, ...done.keys.map((k) => k.atSeconds + BETWEEN_KEYS));
    // What was pressed later is no longer so: the caller is here now.
    setDone({ ...done, keys: [...done.keys.filter((k) => k.atSeconds <= at), { atSeconds: at, key }] });
    setNow(at);
  };
  const pressNow = useRef(press);
  useEffect(() => {
    pressNow.current = press;
  });
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (!/^[0-9*#]$/.test(e.key) || e.ctrlKey || e.metaKey || e.altKey || isTyping(e.target)) return;
      e.preventDefault();
      pressNow.current(e.key);
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);

  const again = () => {
    setDone(NOTHING_DONE);
    setNow(0);
  };
  const skip = () => {
    const moments = lines.flatMap((l) => [l.atSeconds, l.atSeconds + (l.sound?.heardSeconds ?? 0)]);
    const next = moments.filter((m) => m > now + 0.05).sort((a, b) => a - b)[0];
    setNow(Math.min(end, next ?? end));
  };
  const offer = lines.filter((l) => l.type === 'offer' && l.atSeconds <= now + 0.05).at(-1) ?? null;
  return (
    <Workspace
      title="Rehearsal"
      lead="Play the caller: hear what they hear, press what they press."
      acts={run ? <ActLink href={tracePath(question.from, question.dial, question.at)}>Why each step</ActLink> : null}
    >
      <QuestionForm
        prefix="rehearsal"
        dial="Calls"
        act="Call"
        question={question}
        onAsk={(q) => {
          setQuestion(q);
          again();
        }}
      />
      {asked.wrong ? <Wrong>{asked.wrong}</Wrong> : null}
      {!run && !asked.wrong && !asked.waiting ? (
        <Empty>
          Say who calls, which number or extension, and when. Then press keys, here or on your keyboard; skip the
          waiting; say who answers.
        </Empty>
      ) : null}
      {run ? (
        <>
          <Flex gap="8px" align="center" mb="12px" wrap="wrap">
            <Act look="main" aria-pressed={playing} onClick={() => setPlaying(!playing)}>
              {playing ? <Pause size={14} aria-hidden /> : <Play size={14} aria-hidden />} {playing ? 'Pause' : 'Play'}
            </Act>
            <Act disabled={over} onClick={skip}>
              <SkipForward size={14} aria-hidden /> Skip to what comes next
            </Act>
            {SPEEDS.map((s) => (
              <Act
                key={s}
                aria-pressed={speed === s}
                bg={speed === s ? 'plumTint' : undefined}
                onClick={() => setSpeed(s)}
              >
                × {s}
              </Act>
            ))}
            <Act aria-pressed={sounds} onClick={() => setSounds(!sounds)}>
              {sounds ? <Volume2 size={14} aria-hidden /> : <VolumeX size={14} aria-hidden />}{' '}
              {sounds ? 'With sound' : 'By text'}
            </Act>
            <Act onClick={again}>Begin again</Act>
            <Clock now={now} end={end} at={run.at} zone={run.zone} />
          </Flex>
          <Grid templateColumns={{ base: '1fr', lg: '220px minmax(0, 1fr)' }} gap="20px" alignItems="start">
            <Box>
              <Pad disabled={done.answered !== null} onPress={press} />
              <Who
                offer={offer}
                shownName={run.trace.shownName}
                done={done}
                onAnswer={(l) => {
                  setDone({ ...done, answered: { label: l.text, atSeconds: now } });
                  setPlaying(false);
                }}
                onIs={(what, id) => setDone({ ...done, [what]: [...done[what], id], answered: null })}
                onRing={skip}
              />
            </Box>
            <Transcript lines={lines} now={now} done={done} over={over} />
          </Grid>
          <Box mt="18px">
            <PartTitle>The course of the call</PartTitle>
            <CourseView course={litUntil(run, now)} />
          </Box>
          {start.mayEdit ? <KeepThis question={question} done={done} /> : null}
          <Hearing lines={lines} now={now} on={sounds && playing && speed === 1} />
        </>
      ) : null}
      <KeptRehearsals mayEdit={start.mayEdit} />
    </Workspace>
  );
}
