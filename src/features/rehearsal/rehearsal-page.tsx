'use client';

import { Box, Flex, Grid, chakra } from '@chakra-ui/react';
import { Pause, Play, SkipForward, Volume2, VolumeX } from 'lucide-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useForm } from 'react-hook-form';
import type { Answer } from '@/contract';
import { KEY_LETTERS, PHONE_KEYS } from '@/core/plan/facts/attendants';
import { Act, ActLink, Empty, PartTitle, Wrong } from '@/ui/controls';
import { CourseView } from '@/ui/course-view';
import { Glyph } from '@/ui/glyph';
import { isTyping } from '@/ui/ledger-state';
import { useWriting } from '@/ui/time';
import { Workspace } from '@/ui/workspace';
import { addressOf } from '@/workbench/api';
import { formFields } from '@/workbench/form-fields';
import { PhoneBox } from '@/workbench/phone-box';
import { tracePath } from '@/workbench/paths';
import { useAsked } from '@/workbench/use-asked';
import { KeepThis, KeptRehearsals } from './kept-rehearsals';
import { NOTHING_DONE, lastSecond, linesOf, readDone, writeDone, type Done, type Line, type Sound } from './run';

interface Start {
  from: string;
  dial: string;
  at: string;
  did: string;
  mayEdit: boolean;
}

const clock = (seconds: number) => `${Math.floor(seconds / 60)}:${String(Math.floor(seconds % 60)).padStart(2, '0')}`;

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

function Clock({ now, end, at, zone }: { now: number; end: number; at: string; zone: string }) {
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

function QuestionForm({
  question,
  onAsk,
}: {
  question: { from: string; dial: string; at: string };
  onAsk: (q: { from: string; dial: string; at: string }) => void;
}) {
  const form = useForm({ values: question });
  const { field, text } = formFields(form, { prefix: 'rehearsal' });
  const ask = form.handleSubmit((q) => onAsk({ ...q, at: q.at || 'now' }));
  return (
    <chakra.form mb="14px" onSubmit={(e) => void ask(e)}>
      <Flex gap="10px" align="flex-end" wrap="wrap">
        <Box flex="1" minW="130px" maxW="230px">
          {field('from', 'From', ({ change, ...rest }) => (
            <PhoneBox {...rest} onChange={change} />
          ))}
        </Box>
        <Box flex="1" minW="130px" maxW="230px">
          {text('dial', 'Calls', { fontFamily: 'mono' })}
        </Box>
        <Box w="150px">{text('at', 'When')}</Box>
        <Act look="main" type="submit" h="32px">
          Call
        </Act>
      </Flex>
    </chakra.form>
  );
}

/** The keys of the caller's telephone. */
function Pad({ disabled, onPress }: { disabled: boolean; onPress: (key: string) => void }) {
  return (
    <Grid role="group" aria-label="Your keypad" templateColumns="repeat(3, 1fr)" gap="6px" data-testid="pad">
      {PHONE_KEYS.map((key) => (
        <chakra.button
          key={key}
          type="button"
          aria-label={`Press ${key}`}
          disabled={disabled}
          h="46px"
          border="1px solid"
          borderColor="fieldLine"
          rounded="4px"
          bg="raised"
          _active={{ bg: 'plumTint' }}
          _disabled={{ opacity: 0.5 }}
          onClick={() => onPress(key)}
        >
          <chakra.span fontFamily="mono" fontSize="17px" fontWeight={700}>
            {key}
          </chakra.span>
          <chakra.span display="block" fontFamily="mono" fontSize="10px" color="quiet" lineHeight="12px">
            {(KEY_LETTERS[key] ?? '').toUpperCase() || ' '}
          </chakra.span>
        </chakra.button>
      ))}
    </Grid>
  );
}

/** Whoever is offered the call: whether they take it. */
function Who({
  offer,
  shownName,
  done,
  onAnswer,
  onIs,
  onRing,
}: {
  offer: Line | null;
  shownName: string | null;
  done: Done;
  onAnswer: (line: Line) => void;
  onIs: (what: 'busy' | 'away', id: string) => void;
  onRing: () => void;
}) {
  const lands = offer?.lands;
  if (!offer || !lands || done.answered) return null;
  const takes = ['extension', 'ringGroup', 'queue', 'outside'].includes(lands.kind);
  if (!takes) return null;
  return (
    <Box as="section" aria-label="Who answers" mt="14px">
      <PartTitle>It rings at</PartTitle>
      <Flex gap="8px" align="center" mb="8px">
        <Glyph kind={lands.kind} />
        <b>{lands.label}</b>
        {shownName ? <chakra.span color="quiet">shown with “{shownName}”</chakra.span> : null}
      </Flex>
      <Flex gap="6px" wrap="wrap">
        <Act onClick={() => onAnswer(offer)}>Answers</Act>
        <Act onClick={onRing}>Nobody answers</Act>
        {lands.kind === 'extension' && lands.id ? (
          <>
            <Act onClick={() => onIs('busy', lands.id!)}>Is busy</Act>
            <Act onClick={() => onIs('away', lands.id!)}>Is away</Act>
          </>
        ) : null}
      </Flex>
    </Box>
  );
}

/** What happened until now, line by line; what is being heard stands out. */
function Transcript({ lines, now, done, over }: { lines: readonly Line[]; now: number; done: Done; over: boolean }) {
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

/** The course with only those ways walked that the call has taken by now. */
function litUntil({ course, trace }: NonNullable<Answer<'rehearse'>>, now: number): Answer<'rehearse'>['course'] {
  const since = (node: string): number => {
    if (node === 'lands') return trace.steps.find((s) => s.object?.id === trace.lands?.id)?.atSeconds ?? 0;
    const then = /^then (\d+)$/.exec(node);
    if (then) return trace.then[Number(then[1])]?.afterSeconds ?? 0;
    return trace.steps.find((s) => s.object && `${s.object.kind} ${s.object.id}` === node)?.atSeconds ?? 0;
  };
  const met = (node: string) => since(node) <= now + 0.05;
  return {
    ...course,
    ways: course.ways.map((w) => ({ ...w, walked: met(w.to) && (w.walked || /^then /.test(w.to)) })),
  };
}

/** Where what is heard can be fetched: a recording, or a phrase as it is spoken. */
const addressOfSound = ({ sound, phrase, language, figure }: Sound): string =>
  sound
    ? addressOf('sound', { params: { id: sound }, query: {} })
    : addressOf('phraseSound', { params: { phrase: phrase!, language }, query: { figure: figure ?? undefined } });

/** Plays the recording that is heard now, from where the call is. */
function Hearing({ lines, now, on }: { lines: readonly Line[]; now: number; on: boolean }) {
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
