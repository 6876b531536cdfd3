'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { CalendarReading } from '@/contract/calendars';
import { Act, ActLink, PartTitle, Wrong } from '@/ui/controls';
import { useWriting } from '@/ui/time';
import { FileAct, NotCarried } from '@/ui/file-act';
import { addressOf, call, sendFile } from '@/workbench/api';
import type { ObjectEdit } from '@/workbench/edits';
import { OneFieldForm } from '@/workbench/one-field-form';
import { useAsked } from '@/workbench/use-asked';
import type { DatedTimes } from './year-ribbon';

type Dates = CalendarReading['exceptions'];

/** The dates of an object with others put over them, in their order. */
const withDates = (before: readonly DatedTimes[], dates: Dates): DatedTimes[] => {
  const byDate = new Map(before.map((d) => [d.date, d]));
  for (const d of dates) byDate.set(d.date, { ...d, name: d.name || byDate.get(d.date)?.name || '' });
  return [...byDate.values()].sort((a, b) => a.date.localeCompare(b.date));
};

/** Hours as a calendar: a file out and in, an address to subscribe to, and a calendar of somebody else's that is read. */
export function CalendarPart({ id, edit, canEdit }: { id: string; edit: ObjectEdit; canEdit: boolean }) {
  return (
    <Flex direction="column" gap="18px" maxW="760px">
      <Files id={id} edit={edit} canEdit={canEdit} />
      <Links id={id} edit={edit} canEdit={canEdit} />
    </Flex>
  );
}

function Files({ id, edit, canEdit }: { id: string; edit: ObjectEdit; canEdit: boolean }) {
  const [read, setRead] = useState<CalendarReading | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const choose = async (file: File) => {
    setRead(null);
    const got = await sendFile('readCalendar', { params: { id } }, file);
    setWrong(got.ok ? null : got.errors[0]!.sentence);
    if (got.ok) setRead(got.value);
  };
  const takeIn = () => {
    if (!read) return;
    if (read.weekly !== '') edit.set('weekly', read.weekly);
    edit.set('exceptions', withDates(edit.value.exceptions as DatedTimes[], read.exceptions));
    void edit.commit();
    setRead(null);
  };
  return (
    <Box>
      <Flex gap="8px" align="center" wrap="wrap">
        <ActLink href={addressOf('calendarFile', { params: { id } })} download>
          Save as a calendar file
        </ActLink>
        {canEdit ? (
          <FileAct label="Calendar file" accept=".ics,text/calendar" onFile={(file) => void choose(file)}>
            Read a calendar file…
          </FileAct>
        ) : null}
        <chakra.span color="quiet" fontSize="13px">
          iCalendar (RFC 5545), as it stands in the draft
        </chakra.span>
      </Flex>
      {wrong ? (
        <Box mt="8px">
          <Wrong>{wrong}</Wrong>
        </Box>
      ) : null}
      {read ? (
        <Box border="1px solid" borderColor="plum" rounded="4px" p="12px" mt="8px" data-testid="calendar-reading">
          <Changes changes={read.changes} />
          {read.notCarried.length > 0 ? (
            <Box mt="8px" color="quiet" fontSize="13px">
              Not taken over:
              <NotCarried list={read.notCarried} />
            </Box>
          ) : null}
          <Flex gap="8px" mt="10px">
            <Act look="main" disabled={read.changes.length === 0} onClick={takeIn}>
              Take it into the draft
            </Act>
            <Act onClick={() => setRead(null)}>Leave it</Act>
          </Flex>
        </Box>
      ) : null}
    </Box>
  );
}

function Changes({ changes }: { changes: readonly string[] }) {
  if (changes.length === 0) return <Box color="quiet">It says nothing that these hours do not say already.</Box>;
  return (
    <Box>
      <b>It would change:</b>
      {changes.slice(0, 12).map((s) => (
        <Box key={s}>· {s}</Box>
      ))}
      {changes.length > 12 ? <Box color="quiet">and {changes.length - 12} more</Box> : null}
    </Box>
  );
}

function Links({ id, edit, canEdit }: { id: string; edit: ObjectEdit; canEdit: boolean }) {
  const write = useWriting();
  const queries = useQueryClient();
  const asked = useAsked('calendarLinks', { params: { id } }, { fresh: true, keep: true });
  const [made, setMade] = useState<string | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const again = () => void queries.invalidateQueries({ queryKey: ['calendarLinks'] });
  const act = async (work: () => ReturnType<typeof call<'revokeCalendarAddress'>>) => {
    setBusy(true);
    const done = await work();
    setBusy(false);
    setWrong(done.ok || done.status === 404 ? null : done.errors[0]!.sentence);
    again();
  };
  const make = async () => {
    setBusy(true);
    const got = await call('makeCalendarAddress', { params: { id }, body: {} });
    setBusy(false);
    setWrong(got.ok ? null : got.errors[0]!.sentence);
    if (got.ok) setMade(new URL(got.value.path, window.location.origin).href);
    again();
  };
  const reread = async () => {
    setBusy(true);
    const got = await call('readCalendarFeed', { params: { id }, body: {} });
    setBusy(false);
    setWrong(got.ok ? null : got.errors[0]!.sentence);
    again();
  };
  const { addresses = [], feed = null } = asked.value ?? {};
  return (
    <>
      <Box>
        <PartTitle>For calendar programs to subscribe to</PartTitle>
        {addresses.length === 0 && !made ? (
          <Box color="quiet" mb="6px">
            No address yet. Whoever knows it reads these hours as they are live, and nothing else.
          </Box>
        ) : null}
        {made ? (
          <Box border="1px solid" borderColor="plum" rounded="4px" p="10px" mb="8px" data-testid="calendar-address">
            <Box fontSize="13px" color="quiet" mb="4px">
              Told once: copy it into the calendar program now.
            </Box>
            <chakra.code fontFamily="mono" fontSize="13px" overflowWrap="anywhere">
              {made}
            </chakra.code>
          </Box>
        ) : null}
        {addresses.map((a) => (
          <Flex key={a.id} gap="10px" align="center" minH="32px" fontSize="13px" wrap="wrap">
            <span>
              Made {write(a.madeAt)} by {a.madeBy}
            </span>
            <chakra.span color="quiet">{a.lastReadAt ? `last read ${write(a.lastReadAt)}` : 'never read'}</chakra.span>
            {canEdit ? (
              <Act
                h="26px"
                disabled={busy}
                onClick={() => void act(() => call('revokeCalendarAddress', { params: { id, address: a.id } }))}
              >
                Revoke
              </Act>
            ) : null}
          </Flex>
        ))}
        {canEdit ? (
          <Act disabled={busy} onClick={() => void make()}>
            Make an address
          </Act>
        ) : null}
      </Box>
      <Box>
        <PartTitle>Dates read from somebody else’s calendar</PartTitle>
        {feed ? (
          <Box border="1px solid" borderColor="line" rounded="4px" p="12px" bg="raised" data-testid="calendar-feed">
            <Flex gap="10px" align="center" wrap="wrap" mb="6px">
              <b>{feed.shown}</b>
              <chakra.span color="quiet" fontSize="13px">
                {feed.readAt ? `read ${write(feed.readAt)}: ` : ''}
                {feed.outcome}
              </chakra.span>
              {canEdit ? (
                <Flex gap="6px" ml="auto">
                  <Act h="26px" disabled={busy} onClick={() => void reread()}>
                    Read now
                  </Act>
                  <Act
                    h="26px"
                    disabled={busy}
                    onClick={() => void act(() => call('dropCalendarFeed', { params: { id } }))}
                  >
                    Read it no longer
                  </Act>
                </Flex>
              ) : null}
            </Flex>
            {feed.dates ? <Changes changes={feed.changes} /> : null}
            {canEdit && feed.dates && feed.changes.length > 0 ? (
              <Act
                look="main"
                mt="8px"
                onClick={() =>
                  edit.choose('exceptions', withDates(edit.value.exceptions as DatedTimes[], feed.dates ?? []))
                }
              >
                Take it into the draft
              </Act>
            ) : null}
          </Box>
        ) : canEdit ? (
          <OneFieldForm
            operation="setCalendarFeed"
            input={(address) => ({ params: { id }, body: { address } })}
            id="calendar-feed"
            title="Address of a calendar"
            note="A calendar of closing days that somebody else keeps, such as https://calendar.example/closing-days.ics. It is read a few times a day; what it says is proposed here and taken in by you."
            act="Read it"
            done="It is read."
            type="url"
            w="420px"
            maxW="100%"
            autoComplete="off"
            onDone={again}
          />
        ) : (
          <Box color="quiet">None is read.</Box>
        )}
      </Box>
      {wrong ? <Wrong>{wrong}</Wrong> : null}
    </>
  );
}
