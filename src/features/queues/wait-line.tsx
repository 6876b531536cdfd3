'use client';

import { Flex } from '@chakra-ui/react';
import { Glyph } from '@/ui/glyph';
import { TimeLine, type TimeBar } from '@/ui/time-line';
import { nameIn, type FieldsData } from '@/workbench/form-data';

/** How much of an endless wait is drawn, seconds. */
const DRAWN_SECONDS = 300;
/** How long an announcement of the place takes, about, for the drawing. */
const SAYING_SECONDS = 4;

interface Queue {
  intro: string | null;
  introFirst: boolean;
  announceEverySeconds: number | null;
  callbackKey: string | null;
  callbackAfterSeconds: number;
  exitKey: string | null;
  exitTo: string | null;
  longestWaitSeconds: number | null;
  waitedTooLong: string | null;
  secondAgents: string[];
  secondAfterSeconds: number;
  thirdAfterSeconds: number;
  thirdAgents: string[];
}

const figure = (value: unknown): number | null => (typeof value === 'number' ? value : null);

/** What a caller meets who waits: what is heard when, which keys work from when, and where the wait ends. */
export function WaitLine({
  queue,
  introSeconds,
  options,
}: {
  queue: Record<string, unknown>;
  /** how long the introduction lasts; null where there is none */
  introSeconds: number | null;
  options: FieldsData['options'];
}) {
  const q = queue as unknown as Queue;
  const placeOf = nameIn(options.destination);
  const longest = figure(q.longestWaitSeconds);
  const whole = longest ?? DRAWN_SECONDS;
  const intro = q.intro ? (introSeconds ?? 0) : 0;
  const every = figure(q.announceEverySeconds);
  const said: TimeBar['spans'] = [];
  if (every !== null && every > 0)
    for (let at = every; at < whole; at += every) said.push({ from: at, until: Math.min(whole, at + SAYING_SECONDS) });
  const rings = q.introFirst ? Math.min(intro, whole) : 0;
  const bars: TimeBar[] = [
    {
      id: 'rings',
      name: 'Agents are rung',
      says: `Agents are rung from second ${rings}`,
      spans: [{ from: rings, until: whole }],
      look: 'rings',
    },
  ];
  const level = (id: string, name: string, after: number | null, agents: readonly string[]) => {
    const from = Math.max(rings, after ?? 0);
    if (agents.length > 0)
      bars.push({
        id,
        name: `${name} is rung too`,
        says: from < whole ? `${name} is rung from second ${from}` : `${name} never comes in`,
        spans: from < whole ? [{ from, until: whole }] : [],
        look: 'rings',
      });
  };
  level('second', 'Second level', figure(q.secondAfterSeconds), q.secondAgents);
  level('third', 'Third level', figure(q.thirdAfterSeconds), q.thirdAgents);
  if (intro > 0)
    bars.push({
      id: 'intro',
      name: 'Introduction',
      says: `The introduction plays for ${intro} seconds`,
      spans: [{ from: 0, until: Math.min(intro, whole) }],
      look: 'heard',
    });
  if (said.length > 0)
    bars.push({
      id: 'position',
      name: 'Place and wait are said',
      says: `Place and wait are said every ${every} seconds`,
      spans: said,
      look: 'heard',
    });
  const key = (id: string, pressed: string | null, from: number, does: string) => {
    if (pressed !== null)
      bars.push({
        id,
        name: `Key ${pressed}: ${does}`,
        says: `Key ${pressed} works from second ${from}: ${does}`,
        spans: from < whole ? [{ from, until: whole }] : [],
        look: 'offered',
      });
  };
  key('callback', q.callbackKey, figure(q.callbackAfterSeconds) ?? 0, 'called back');
  key('exit', q.exitKey, 0, q.exitTo ? (placeOf(q.exitTo) ?? 'leaves') : 'released');
  const then = longest === null ? null : q.waitedTooLong;
  return (
    <TimeLine
      label="What a caller meets who waits"
      bars={bars}
      whole={whole}
      open={longest === null}
      end={
        <Flex gap="7px" align="flex-start">
          <Glyph
            kind={longest === null ? 'queue' : (options.destination?.find((o) => o.id === then)?.kind ?? 'tone')}
          />
          <span>
            {longest === null
              ? 'waits until answered'
              : `after ${longest} s ${then ? (placeOf(then) ?? 'somewhere else') : 'released: nobody answers'}`}
          </span>
        </Flex>
      }
    />
  );
}
