'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { useEffect, useEffectEvent, useRef, useState } from 'react';
import type { LogReport, LogSettings } from '@/contract/records';
import { Act, Labelled, SelectBox, Wrong } from '@/ui/controls';
import { useKept } from '@/ui/kept';
import { PaneSection, Workspace } from '@/ui/workspace';
import { call } from '@/workbench/api';
import { JobBar } from '@/workbench/job-bar';
import { NotYours } from '@/workbench/not-yours';
import { useJob, whyNot } from '@/workbench/use-job';
import type { AboutCalls } from './about';
import { Columns, Done, Found, calls } from './log-parts';
import { sendLog } from './send-log';
import { Tabs } from './tabs';

const EMPTY: LogSettings = { site: '', order: '', zone: '', columns: null };

/** Beside those of the sites. */
const ZONES = ['UTC'];

interface Kept {
  file: { id: string; name: string };
  settings: LogSettings;
}

/** A call log of another system: its columns matched, its beginning shown as calls, then all of it kept. */
export function LogImportPage({ about }: { about: AboutCalls }) {
  const [kept, setKept] = useKept<Kept>(`${about.account} call log`, {
    title: 'A call log',
    path: '/calls/import',
    fields: ['file and columns'],
  });
  const [settings, setSettings] = useState<LogSettings>(EMPTY);
  const [report, setReport] = useState<LogReport | null>(null);
  const [done, setDone] = useState<LogReport | null>(null);
  const [job, setJob] = useState<string | null>(null);
  const [sending, setSending] = useState<{ name: string; share: number } | null>(null);
  const stop = useRef<AbortController | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const work = useJob<LogReport & { report?: LogReport }>(job, (ended) => {
    setWrong(whyNot(ended));
    // Other work may have begun meanwhile.
    setJob((now) => (now === ended.id ? null : now));
    // What was recognised of a log that can't be read is where it is mended.
    const told = ended.result?.report ?? (ended.state === 'done' ? ended.result : null);
    if (!told) return;
    if (told.added === null) return setReport(told);
    setDone(told);
    setReport(null);
    setKept(null);
  });
  // Of several answers the one to what was asked last counts.
  const last = useRef(0);
  const start = async (what: 'checkLog' | 'importLog', id: string, next: LogSettings) => {
    const mine = ++last.current;
    setWrong(null);
    const got = await call(what, { params: { id }, body: next });
    if (mine !== last.current) return;
    if (got.ok) return setJob(got.value.job);
    setWrong(got.errors[0]!.sentence);
    if (got.status === 404) setKept(null);
  };
  // Whoever comes back finds the log looked at again, with the columns as they were chosen.
  const resumed = useRef(false);
  const resume = useEffectEvent(() => {
    if (resumed.current || !kept || !about.mayKeep) return;
    resumed.current = true;
    setSettings(kept.settings);
    void start('checkLog', kept.file.id, kept.settings);
  });
  useEffect(() => resume(), [kept]);
  const choose = async (file: File | undefined) => {
    if (!file) return;
    setReport(null);
    setDone(null);
    setWrong(null);
    stop.current = new AbortController();
    setSending({ name: file.name, share: 0 });
    const sent = await sendLog(file, stop.current.signal, (share) => setSending({ name: file.name, share }));
    setSending(null);
    if (!sent.ok) return setWrong(sent.sentence);
    const fresh = { ...settings, columns: null };
    resumed.current = true;
    setSettings(fresh);
    setKept({ file: { id: sent.id, name: file.name }, settings: fresh });
    await start('checkLog', sent.id, fresh);
  };
  const change = (part: Partial<LogSettings>) => {
    const next = { ...settings, ...part };
    setSettings(next);
    if (!kept) return;
    setKept({ ...kept, settings: next });
    void start('checkLog', kept.file.id, next);
  };
  const title = 'Bring in a call log';
  if (!about.mayKeep) return <NotYours title={title} />;
  const site = settings.site || report?.site || about.site;
  return (
    <Workspace
      title={title}
      lead="CSV in UTF-8 or UTF-16 with any usual separator, or JSON lines; up to 1 GB. The same calls twice add nothing."
      pane={<Pane />}
    >
      <Tabs about={about} />
      <Flex gap="14px" wrap="wrap" align="flex-end" mb="16px">
        <Box w="300px">
          <Labelled title="File" htmlFor="log-file">
            <chakra.input
              id="log-file"
              type="file"
              accept=".csv,.txt,.tsv,.jsonl,.ndjson,.json,text/csv"
              fontSize="13px"
              onChange={(e) => void choose(e.target.files?.[0])}
            />
          </Labelled>
        </Box>
        <Box w="190px">
          <Labelled title="Written at" htmlFor="log-site">
            <SelectBox id="log-site" value={site} onChange={(e) => change({ site: e.target.value })}>
              {about.sites.map((s) => (
                <option key={s.id} value={s.id}>
                  {s.label}
                </option>
              ))}
            </SelectBox>
          </Labelled>
        </Box>
        <Box w="170px">
          <Labelled title="Clock of its times" htmlFor="log-zone">
            <SelectBox id="log-zone" value={settings.zone} onChange={(e) => change({ zone: e.target.value })}>
              <option value="">of that site</option>
              {[...new Set([...ZONES, ...about.zones])].map((z) => (
                <option key={z} value={z}>
                  {z}
                </option>
              ))}
            </SelectBox>
          </Labelled>
        </Box>
        <Box w="130px">
          <Labelled title="3/4/2026 means" htmlFor="log-order">
            <SelectBox
              id="log-order"
              value={settings.order || report?.order || 'day first'}
              onChange={(e) => change({ order: e.target.value as LogSettings['order'] })}
            >
              <option value="day first">3 April</option>
              <option value="month first">4 March</option>
            </SelectBox>
          </Labelled>
        </Box>
      </Flex>
      {sending ? (
        <Box
          border="1px solid"
          borderColor="line"
          rounded="4px"
          bg="raised"
          p="12px"
          mb="14px"
          data-testid="log-sending"
        >
          <Flex gap="12px" align="center">
            <Box flex="1" role="status">
              Sending {sending.name}: {Math.round(sending.share * 100)} %
            </Box>
            <Act onClick={() => stop.current?.abort()}>Stop</Act>
          </Flex>
        </Box>
      ) : null}
      {kept && !sending ? (
        <Box color="quiet" fontSize="13px" mb="10px">
          {kept.file.name} stays here until it is brought in or{' '}
          <Act
            look="text"
            h="20px"
            onClick={() => {
              setKept(null);
              setReport(null);
            }}
          >
            put away
          </Act>
        </Box>
      ) : null}
      {job !== null ? <JobBar job={work} what={kept?.file.name ?? 'Call log'} /> : null}
      {wrong ? (
        <Box mb="14px">
          <Wrong>{wrong}</Wrong>
        </Box>
      ) : null}
      {done ? <Done report={done} /> : null}
      {report ? (
        <>
          <Columns
            report={report}
            columns={settings.columns ?? report.columns}
            onChange={(columns) => change({ columns })}
          />
          <Found report={report} zone={report.zone} />
          <Act
            look="main"
            mt="14px"
            disabled={job !== null || report.calls === 0}
            onClick={() => kept && void start('importLog', kept.file.id, settings)}
          >
            {report.whole ? `Keep ${calls(report.calls)}` : 'Keep the calls of all rows'}
          </Act>
        </>
      ) : null}
    </Workspace>
  );
}

function Pane() {
  return (
    <>
      <PaneSection title="How it goes">
        The first rows are shown as the calls that they become. Rows that can’t be read are left out and told, with
        their cell; the others are kept as they come. It can be stopped, and brought in again: no call is kept twice.
      </PaneSection>
      <PaneSection title="What it is good for">
        Replayed, the log of the system before this one shows which calls the new plan would lose.
      </PaneSection>
      <PaneSection title="What a log must say">
        When each call began, and what was called. All else may be missing.
      </PaneSection>
    </>
  );
}
