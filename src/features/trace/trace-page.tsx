'use client';

import { MustStay } from '@/workbench/must-stay';
import { Box, Flex, chakra } from '@chakra-ui/react';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import type { Course } from '@/core/course';
import type { Trace } from '@/core/routing';
import { Act, ActLink, Empty, Wrong } from '@/ui/controls';
import { CourseView } from '@/ui/course-view';
import { DigitRail } from '@/ui/digits';
import { PaneSection, Workspace } from '@/ui/workspace';
import { formFields } from '@/workbench/form-fields';
import { PhoneBox } from '@/workbench/phone-box';
import { tracePath } from '@/workbench/paths';
import { End, Fact, Step } from '@/workbench/trace-parts';
import { useWriting } from '@/ui/time';
import { SituationBar, asideFrom, type Beside } from './situation-bar';

interface OneAnswer {
  trace: Trace;
  course: Course;
}
export interface TracePageData {
  question: { from: string; dial: string; at: string };
  /** what the call is asked with besides what holds, and what things in it are called */
  beside: Beside;
  /** may promise that it stays so: nothing was assumed */
  mayEdit: boolean;
  refused: string | null;
  answer: {
    draft: OneAnswer | null;
    live: OneAnswer | null;
    same: boolean;
    at: string;
    zone: string;
    why: string | null;
  } | null;
}

/** One call with its course, its digits and every step's reason. */
export function TracePage({ data }: { data: TracePageData }) {
  const { answer } = data;
  const write = useWriting();
  const [which, setWhich] = useState<'draft' | 'live'>('draft');
  const shown = answer ? (answer[which] ?? answer.draft ?? answer.live) : null;
  const when = answer ? `${write(answer.at, { zone: answer.zone, weekday: true })}` : '';
  return (
    <Workspace
      title={shown ? titleOf(data, shown) : 'Trace a call'}
      lead={
        answer ? `${when}, ${answer.zone} · ${asideFrom(data.beside)}` : 'Ask what happens to any call, and read why.'
      }
      acts={
        <>
          {answer && blockable(data.question.from) ? (
            <ActLink href={`/blocked?calling=${encodeURIComponent(blockable(data.question.from)!)}`}>
              Block this caller
            </ActLink>
          ) : null}
          {data.mayEdit && answer?.draft ? (
            <MustStay
              key={`${data.question.from} ${data.question.dial} ${data.question.at}`}
              of={{ from: data.question.from, dial: data.question.dial, at: answer.at }}
              about="this call"
            />
          ) : null}
          {answer && !answer.same && answer.draft && answer.live ? (
            <Flex role="group" aria-label="Which plan">
              {(['live', 'draft'] as const).map((w) => (
                <Act
                  key={w}
                  aria-pressed={which === w}
                  onClick={() => setWhich(w)}
                  bg={which === w ? (w === 'draft' ? 'saffron' : 'plumTint') : undefined}
                  color={which === w && w === 'draft' ? 'saffronInk' : undefined}
                >
                  {w}
                </Act>
              ))}
            </Flex>
          ) : null}
        </>
      }
      pane={shown && answer ? <Pane data={data} shown={shown.trace} which={which} /> : undefined}
    >
      <QuestionForm key={`${data.question.from} ${data.question.dial} ${data.question.at}`} data={data} />
      {data.refused ? <Wrong>{data.refused}</Wrong> : null}
      {!answer && !data.refused ? (
        <Empty>
          Say who calls and what is dialled: an extension (2104), a name, or an outside number (+46 8 465 004 17). The
          answer says where the call ends, which rule decided, and why the others did not.
        </Empty>
      ) : null}
      {shown ? (
        <>
          {shown.trace.rail.length > 0 ? (
            <Box mb="12px">
              <DigitRail cells={shown.trace.rail} note={railNote(shown.trace)} />
            </Box>
          ) : null}
          <CourseView course={shown.course} />
          <SituationBar question={data.question} beside={data.beside} trace={shown.trace} />
          <Box mt="12px" data-testid="steps">
            {shown.trace.steps.map((s, i) => (
              <Step
                key={i}
                step={s}
                everyRule={tracePath(data.question.from, data.question.dial, data.question.at, true)}
              />
            ))}
          </Box>
        </>
      ) : null}
    </Workspace>
  );
}

/** The caller from outside as it can be blocked: a number, or `withheld`; null for a phone of ours or nobody in particular. */
function blockable(from: string): string | null {
  if (from === 'withheld') return from;
  return /^(?:outside:)?(\+[0-9]{5,15})$/.exec(from.replace(/[\s().-]/g, ''))?.[1] ?? null;
}

function titleOf(data: TracePageData, { trace, course }: OneAnswer): string {
  const what = trace.kind === 'emergency' ? 'An emergency call' : 'A call';
  return `${what} from ${course.nodes[0]!.label} to ${data.question.dial || 'nothing'}`;
}

function railNote(trace: Trace): string {
  const first = trace.steps[0];
  return first && first.type === 'digits' ? first.sentence : '';
}

function QuestionForm({ data }: { data: TracePageData }) {
  const router = useRouter();
  const { from, dial, at } = data.question;
  const form = useForm({ values: { from, dial, at } });
  const { field, text } = formFields(form, { prefix: 'trace' });
  const ask = form.handleSubmit((q) => router.push(tracePath(q.from, q.dial, q.at || 'now')));
  return (
    <chakra.form mb="14px" onSubmit={(e) => void ask(e)}>
      <Flex gap="10px" align="flex-end" wrap="wrap">
        <Box flex="1" minW="130px" maxW="230px">
          {field('from', 'From', ({ change, ...rest }) => (
            <PhoneBox {...rest} onChange={change} />
          ))}
        </Box>
        <Box flex="1" minW="130px" maxW="230px">
          {text('dial', 'Dials', { fontFamily: 'mono' })}
        </Box>
        <Box w="130px">{text('at', 'When')}</Box>
        <Act look="main" type="submit" h="32px">
          Trace
        </Act>
      </Flex>
    </chakra.form>
  );
}

function Pane({ data, shown, which }: { data: TracePageData; shown: Trace; which: 'draft' | 'live' }) {
  const answer = data.answer!;
  const other = which === 'draft' ? answer.live : answer.draft;
  return (
    <>
      <PaneSection title="Lands">
        <End outcome={shown.outcome} lands={shown.lands} />
        {shown.cause ? (
          <Box color="quiet">
            Q.850 cause {shown.cause.q850}, SIP {shown.cause.sip}
          </Box>
        ) : null}
      </PaneSection>
      {shown.then.length > 0 ? (
        <PaneSection title="If nobody takes it">
          {shown.then.map((t, i) => (
            <Box key={i}>
              <End outcome="routed" lands={t.lands} />
              <Box color="quiet">
                {t.when}, after {t.afterSeconds} s
              </Box>
            </Box>
          ))}
        </PaneSection>
      ) : null}
      {shown.digitsSent ? (
        <PaneSection title="What leaves">
          <Fact name="read as" value={shown.e164 ?? 'not an outside number'} />
          <Fact name="sent" value={shown.digitsSent} />
          <Fact name="shown" value={shown.shownNumber ?? 'nothing'} />
          {shown.asserted && shown.asserted !== shown.shownNumber ? (
            <Fact name="vouched for" value={shown.asserted} />
          ) : null}
          {shown.divertedBy ? <Fact name="forwarded by" value={shown.divertedBy} /> : null}
        </PaneSection>
      ) : null}
      <PaneSection title={which === 'draft' ? 'Live' : 'In the draft'}>
        {answer.same ? (
          'The same.'
        ) : other ? (
          <End outcome={other.trace.outcome} lands={other.trace.lands} />
        ) : (
          (answer.why ?? 'It can’t be asked there.')
        )}
      </PaneSection>
      {shown.doubts.length > 0 ? (
        <PaneSection title="Doubts">
          {shown.doubts.map((d, i) => (
            <Box key={i} color="saffronText" mb="4px">
              {d}
            </Box>
          ))}
        </PaneSection>
      ) : null}
    </>
  );
}
