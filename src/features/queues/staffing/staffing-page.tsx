'use client';

import { Box, Flex, Grid, chakra } from '@chakra-ui/react';
import { useId, type ReactNode } from 'react';
import type { Input } from '@/contract';
import type { Step } from '@/core/load/sizing';
import { Act, ActLink, PartTitle, SelectBox, Wrong } from '@/ui/controls';
import { FigureBox } from '@/ui/figure-box';
import { useKept } from '@/ui/kept';
import { Workspace } from '@/ui/workspace';
import { useAsked } from '@/workbench/use-asked';
import { HOURS_A_DAY, NOTHING_TYPED, readTyped, standsFor, type QueueSaid, type StaffingTyped } from './asked';
import { ComparedTable } from './compared-table';
import { DayStaffing } from './day-staffing';
import { HandlingFit } from './handling-fit';
import { PlayedHour } from './played-hour';
import { useSizing } from './use-sizing';

const DAYS = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'];
/** How far back calls are looked at. */
const WEEKS = 8;
const WEEK = 7 * 86_400_000;

export interface StaffingData {
  id: string;
  name: string;
  queue: QueueSaid & { agents: number };
  account: string;
  /** the first day looked at: today less some weeks */
  today: string;
  maySeeCalls: boolean;
}

/** How many agents a queue needs, quarter hour by quarter hour: from its own calls, or from what is typed. */
export function StaffingPage({ data }: { data: StaffingData }) {
  const { id, name, queue, account } = data;
  const from = new Date(Date.parse(data.today) - WEEKS * WEEK).toISOString().slice(0, 10);
  const query = { queue: id, from } as Input<'queueFigures'>['query'];
  const figures = useAsked('queueFigures', data.maySeeCalls ? { query } : null);
  const [kept, keep] = useKept<StaffingTyped>(`${account} staffing ${id}`);
  const typed = kept ?? NOTHING_TYPED;
  const put = (part: Partial<StaffingTyped>) => keep((now) => ({ ...(now ?? NOTHING_TYPED), ...part }));
  const read = readTyped(typed, figures.value, queue);
  const run = useSizing();
  const wrong = read.ok ? {} : read.wrong;
  const stands = standsFor(figures.value, queue);
  const begin = () => {
    if (!read.ok) return;
    const { law, arrivals, share } = read.asked;
    run.start({ law, arrivals, target: { share }, agents: queue.agents, strategy: queue.strategy });
  };
  const figure = (field: keyof typeof stands, label: string, unit: string) => (
    <Asked label={label} wrong={wrong[field]}>
      {(box) => (
        <FigureBox
          {...box}
          title={label}
          w="96px"
          value={typed[field]}
          unit={unit || null}
          placeholder={stands[field]}
          onChange={(text) => put({ [field]: text })}
        />
      )}
    </Asked>
  );
  const none = read.ok && read.asked.arrivals.every((a) => a === 0);
  return (
    <Workspace
      title={`Staffing of ${name}`}
      lead="How many agents are enough, quarter hour by quarter hour, by playing the queue through many days."
      acts={<ActLink href={`/queues/${id}`}>The queue</ActLink>}
    >
      <Flex gap="10px 18px" wrap="wrap" align="flex-end" mb="14px">
        <Asked label="Calls come">
          {(field) => (
            <SelectBox
              {...field}
              value={typed.source}
              onChange={(e) => put({ source: e.target.value as StaffingTyped['source'] })}
            >
              <option value="records">as in the last {WEEKS} weeks</option>
              <option value="typed">as typed</option>
            </SelectBox>
          )}
        </Asked>
        {typed.source === 'records' ? (
          <>
            <Asked label="On a">
              {(field) => (
                <SelectBox {...field} value={typed.weekday} onChange={(e) => put({ weekday: Number(e.target.value) })}>
                  {DAYS.map((d, i) => (
                    <option key={d} value={i}>
                      {d}
                    </option>
                  ))}
                </SelectBox>
              )}
            </Asked>
            {figure('growth', 'Of those calls', '%')}
          </>
        ) : null}
        {figure('share', 'Answered', '%')}
        {figure('within', 'within', 'seconds')}
        <Act look="main" disabled={!read.ok || none || run.step !== null} onClick={begin}>
          Work it out
        </Act>
      </Flex>
      {figures.wrong ? <Wrong>{figures.wrong}</Wrong> : null}
      {typed.source === 'typed' ? (
        <Box mb="14px">
          <PartTitle>Calls an hour</PartTitle>
          <Grid templateColumns={{ base: 'repeat(3, 1fr)', md: 'repeat(8, 1fr)' }} gap="6px" maxW="760px">
            {Array.from({ length: HOURS_A_DAY }, (_, hour) => (
              <Asked key={hour} label={`${String(hour).padStart(2, '0')}:00`} wrong={wrong[`hour ${hour}`]}>
                {(field) => (
                  <FigureBox
                    {...field}
                    title={`Calls from ${hour}:00`}
                    w="80px"
                    value={typed.hours[hour] ?? ''}
                    placeholder="0"
                    onChange={(text) =>
                      keep((now) => {
                        const hours = [...(now ?? NOTHING_TYPED).hours];
                        hours[hour] = text;
                        return { ...(now ?? NOTHING_TYPED), hours };
                      })
                    }
                  />
                )}
              </Asked>
            ))}
          </Grid>
        </Box>
      ) : null}
      {typed.source === 'records' && (!data.maySeeCalls || figures.value?.calls === 0) ? (
        <Box mb="14px" color="quiet" data-testid="no-calls">
          {data.maySeeCalls
            ? `No call came to ${name} in these weeks. Type how many calls come in an hour instead, or bring in a log of calls.`
            : 'Your role doesn’t see calls. Type how many come in an hour instead.'}
        </Box>
      ) : null}
      <Box as="section" aria-label="How long it takes" mb="18px" maxW="760px">
        <PartTitle>How long it takes</PartTitle>
        <Flex gap="10px 18px" wrap="wrap" mb="8px">
          {figure('mean', 'A call is handled in', 'seconds')}
          {figure('cv', 'spread (deviation ÷ mean)', '')}
          {figure('wrapUp', 'wrap-up', 'seconds')}
          {figure('answer', 'agent takes it after', 'seconds')}
          {figure('patience', 'Callers wait on average', 'seconds')}
          {figure('shiftHours', 'A shift is', 'hours')}
        </Flex>
        <HandlingFit figures={figures.value} patienceTyped={typed.patience !== ''} />
      </Box>
      {run.wrong ? <Wrong>{run.wrong}</Wrong> : null}
      {run.step ? <Running step={run.step} stop={run.stop} /> : null}
      {run.sizing ? (
        <>
          <DayStaffing sizing={run.sizing} shiftQuarters={read.ok ? read.asked.shiftQuarters : 32} />
          <ComparedTable sizing={run.sizing} />
          <PlayedHour sizing={run.sizing} />
        </>
      ) : null}
    </Workspace>
  );
}

/** One figure that is asked for, with its label above and what is wrong beneath. */
function Asked({
  label,
  wrong,
  children,
}: {
  label: string;
  wrong?: string;
  children: (field: { id: string; 'aria-invalid'?: true; 'aria-describedby'?: string }) => ReactNode;
}) {
  const id = useId();
  return (
    <Box maxW="200px">
      <chakra.label htmlFor={id} display="block" fontSize="13px" color="quiet" mb="2px">
        {label}
      </chakra.label>
      {children({ id, ...(wrong ? { 'aria-invalid': true, 'aria-describedby': `${id}-wrong` } : {}) })}
      {wrong ? (
        <Box id={`${id}-wrong`} role="alert" color="brick" fontSize="13px">
          {wrong}
        </Box>
      ) : null}
    </Box>
  );
}

/** How far the simulation is, and Stop. */
function Running({ step: { done, total, doing }, stop }: { step: Step; stop: () => void }) {
  const share = total === 0 ? 0 : done / total;
  return (
    <Box border="1px solid" borderColor="line" rounded="4px" bg="raised" p="12px" mb="14px" data-testid="sizing-bar">
      <Flex gap="12px" align="center" mb="8px">
        <Box flex="1" role="status">
          Simulating: {doing}
        </Box>
        <Act onClick={stop}>Stop</Act>
      </Flex>
      <Box
        h="6px"
        bg="line"
        rounded="3px"
        overflow="hidden"
        role="progressbar"
        aria-label="Simulating"
        aria-valuenow={Math.round(share * 100)}
        aria-valuemin={0}
        aria-valuemax={100}
      >
        <Box h="100%" bg="plum.solid" style={{ width: `${share * 100}%` }} />
      </Box>
    </Box>
  );
}
