'use client';

import { MustStay } from '@/workbench/must-stay';
import { Box, Flex, Grid } from '@chakra-ui/react';
import { useRouter } from 'next/navigation';
import type { Course } from '@/core/course';
import type { Trace } from '@/core/routing';
import { ActLink, Empty, PartTitle, Wrong } from '@/ui/controls';
import { CourseView } from '@/ui/course-view';
import { DigitRail } from '@/ui/digits';
import { Link } from '@/ui/link';
import { PaneSection, Workspace } from '@/ui/workspace';
import { pathOfCall, type TracedPlans } from '@/workbench/paths';
import { PlanChoice } from '@/workbench/plan-choice';
import { QuestionForm } from '@/workbench/question-form';
import { End, Fact, Step } from '@/workbench/trace-parts';
import { useWriting } from '@/ui/time';
import { SituationBar, asideFrom, type Beside } from './situation-bar';

interface OneAnswer {
  trace: Trace;
  course: Course;
}
export interface TracePageData {
  question: { from: string; calling?: string; dial: string; at: string };
  /** what the call is asked with besides what holds, and what things in it are called */
  beside: Beside;
  /** draft, live or the number of a revision; laid beside another where that is chosen */
  plans: TracedPlans;
  /** may promise that it stays so: nothing was assumed */
  mayEdit: boolean;
  refused: string | null;
  answer: {
    shown: OneAnswer | null;
    other: OneAnswer | null;
    same: boolean;
    at: string;
    zone: string;
    why: string | null;
  } | null;
}

const planName = (of: string): string => (of === 'draft' || of === 'live' ? of : `revision ${of}`);

/** One call with its course, its digits and every step's reason: in one plan, or in two beside one another. */
export function TracePage({ data }: { data: TracePageData }) {
  const { answer, question, plans } = data;
  const router = useRouter();
  const write = useWriting();
  const both = plans.beside !== null && answer !== null;
  const shown = answer?.shown ?? null;
  const named = shown ?? answer?.other ?? null;
  const when = answer ? `${write(answer.at, { zone: answer.zone, weekday: true })}` : '';
  const pathTo = (to: TracedPlans, situation = data.beside.holds) => pathOfCall({ ...question, situation }, to);
  return (
    <Workspace
      title={named ? titleOf(data, named) : 'Trace a call'}
      lead={
        answer ? `${when}, ${answer.zone} · ${asideFrom(data.beside)}` : 'Ask what happens to any call, and read why.'
      }
      acts={
        <>
          {answer && blockable(question.from) ? (
            <ActLink href={`/blocked?calling=${encodeURIComponent(blockable(question.from)!)}`}>
              Block this caller
            </ActLink>
          ) : null}
          {data.mayEdit && answer?.shown ? (
            <MustStay
              key={`${question.from} ${question.dial} ${question.at}`}
              of={{ from: question.from, dial: question.dial, at: answer.at }}
              about="this call"
            />
          ) : null}
        </>
      }
      pane={!both && shown && answer ? <Pane data={data} shown={shown.trace} /> : undefined}
    >
      <TraceForm key={`${question.from} ${question.dial} ${question.at}`} data={data} />
      {data.refused ? <Wrong>{data.refused}</Wrong> : null}
      {!answer && !data.refused ? (
        <Empty>
          Say who calls and what is dialled: an extension (2104), a name, or an outside number (+46 8 465 004 17). The
          answer says where the call ends, which rule decided, and why the others did not.
        </Empty>
      ) : null}
      {answer ? (
        <Flex gap="8px" wrap="wrap" align="center" mb="12px">
          <PlanChoice of={plans.of} onChoose={(of) => router.push(pathTo({ ...plans, of }))} label="In which plan" />
          <PlanChoice
            of={plans.beside ?? ''}
            none="beside nothing"
            before="beside "
            onChoose={(of) => router.push(pathTo({ ...plans, beside: of || null }))}
            label="Beside which plan"
          />
          {both ? <Box>{answer.same ? 'It goes the same in both.' : 'It goes otherwise.'}</Box> : null}
        </Flex>
      ) : null}
      {answer && both ? (
        <>
          <SituationBar pathWith={(w) => pathTo(plans, w)} beside={data.beside} trace={named!.trace} />
          <SideBySide data={data} everyRule={`${pathTo(plans)}&every=rule`} />
        </>
      ) : shown ? (
        <>
          {shown.trace.rail.length > 0 ? (
            <Box mb="12px">
              <DigitRail cells={shown.trace.rail} note={railNote(shown.trace)} />
            </Box>
          ) : null}
          <CourseView course={shown.course} />
          <SituationBar pathWith={(w) => pathTo(plans, w)} beside={data.beside} trace={shown.trace} />
          <Box mt="12px" data-testid="steps">
            {shown.trace.steps.map((s, i) => (
              <Step key={i} step={s} everyRule={`${pathTo(plans)}&every=rule`} />
            ))}
          </Box>
        </>
      ) : null}
      {answer && !both && !shown ? (
        <Box>
          {answer.why} It goes somewhere in{' '}
          <Link href={pathTo({ of: plans.of === 'draft' ? 'live' : 'draft', beside: null })}>
            the {plans.of === 'draft' ? 'live plan' : 'draft'}
          </Link>
          .
        </Box>
      ) : null}
    </Workspace>
  );
}

/** The same call in two plans: their courses one under the other, and what happened side by side. */
function SideBySide({ data, everyRule }: { data: TracePageData; everyRule: string }) {
  const { plans } = data;
  const { shown, other, why } = data.answer!;
  // The older of two stands first, as it is read.
  const two = [
    { of: plans.beside!, answer: other, against: shown },
    { of: plans.of, answer: shown, against: other },
  ];
  return (
    <Grid templateColumns={{ base: '1fr', lg: '1fr 1fr' }} gap="20px" mt="14px">
      {two.map(({ of, answer, against }, i) => (
        <Box key={i} as="section" aria-label={`In ${planName(of)}`} minW={0}>
          <PartTitle>{planName(of)}</PartTitle>
          {answer ? (
            <>
              <End outcome={answer.trace.outcome} lands={answer.trace.lands} />
              <Box my="10px">
                <CourseView course={answer.course} />
              </Box>
              {answer.trace.steps.map((s, j) => (
                <Box
                  key={j}
                  {...(against && against.trace.steps.every((o) => o.sentence !== s.sentence)
                    ? { bg: 'saffronTint', 'data-differs': true }
                    : {})}
                >
                  <Step step={s} everyRule={everyRule} />
                </Box>
              ))}
            </>
          ) : (
            <Box color="quiet">{why ?? 'It can’t be asked there.'}</Box>
          )}
        </Box>
      ))}
    </Grid>
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

function TraceForm({ data }: { data: TracePageData }) {
  const router = useRouter();
  const { from, calling, dial, at } = data.question;
  return (
    <QuestionForm
      prefix="trace"
      dial="Dials"
      act="Trace"
      question={{ from, dial, at }}
      onAsk={(q) => router.push(pathOfCall({ ...q, ...(q.from === from ? { calling } : {}) }, data.plans))}
    />
  );
}

function Pane({ data, shown }: { data: TracePageData; shown: Trace }) {
  const answer = data.answer!;
  const { other } = answer;
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
      <PaneSection title={data.plans.of === 'draft' ? 'Live' : 'In the draft'}>
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
