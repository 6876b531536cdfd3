'use client';

import { Box, Flex, Grid, chakra } from '@chakra-ui/react';
import { useEffect, useEffectEvent, useRef, useState } from 'react';
import type { SheetKind } from '@/core/plan/facts/sheet-kinds';
import { addressOf, call, sendFile } from '@/workbench/api';
import { Act, ActLink, Labelled, PartTitle, SelectBox, TickBox, Wrong } from '@/ui/controls';
import { useKept } from '@/ui/kept';
import { Link } from '@/ui/link';
import { PaneSection, Workspace } from '@/ui/workspace';
import { NotYours } from '@/workbench/not-yours';
import type { Option } from '@/workbench/form-data';
import { JobBar } from '@/workbench/job-bar';
import { LimitLines, type LimitUse } from '@/workbench/limit-lines';
import { useJob, whyNot } from '@/workbench/use-job';
import { Count, Paste, Recognised } from './import-parts';
import { MappingPart } from './mapping-part';
import { RowsPart } from './rows-part';
import { EMPTY, type Report, type Settings, type Sheet } from './report';
import { useRefresh } from '@/ui/refresh';

export interface ImportPageProps {
  account: string;
  mayImport: boolean;
  /** what the sheet is about */
  sheet: Sheet;
  words: string;
  /** where those stand that it is about */
  listPath: string;
  /** which of those settings a new row may need */
  asks: { site: boolean; class: boolean; teams: boolean };
  sites: Option[];
  classes: Option[];
  defaultClass: string;
  limits: LimitUse[];
}

const PEOPLE_LEAD =
  'CSV in UTF-8 or UTF-16 with any usual separator, or a workbook (.xlsx). Rows whose extension exists change it; the others add.';
const KIND_LEAD =
  'CSV in UTF-8 or UTF-16 with any usual separator, or a workbook (.xlsx). Rows whose digits or name exist change those; the others add. In a cell, semicolons stand between several.';
/** Time rules have no name of their own. */
const RULE_LEAD =
  'CSV in UTF-8 or UTF-16 with any usual separator, or a workbook (.xlsx). Rows with the route, hours and state of a rule change it; the others add.';

/** A sheet of people, or of one kind of object: chosen, checked row by row, mended at its cells, and then written whole or not at all. */
export function ImportPage(props: ImportPageProps) {
  const { account, mayImport, sheet, words, listPath, asks, sites, classes, defaultClass, limits } = props;
  const refresh = useRefresh();
  // The file is kept on the server for some days; which it is, and everything corrected, in this browser.
  const [kept, setKept] = useKept<{ file: { id: string; name: string }; settings: Settings }>(
    sheet === 'people' ? `${account} import` : `${account} import ${sheet}`,
    {
      title: `Import of ${words}`,
      path: sheet === 'people' ? '/people/import' : `/import/${sheet}`,
      fields: ['sheet and corrections'],
    },
  );
  const file = kept?.file ?? null;
  const [settings, setSettings] = useState<Settings>({ ...EMPTY, sheet, class: defaultClass || null });
  const [report, setReport] = useState<Report | null>(null);
  const [job, setJob] = useState<string | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const [done, setDone] = useState<Report | null>(null);
  const work = useJob<Report & { written?: number }>(job, (ended) => {
    setWrong(whyNot(ended));
    if (ended.state !== 'done' || !ended.result) return;
    if (ended.result.written === undefined) return setReport(ended.result);
    setDone(ended.result);
    setKept(null);
    refresh();
  });
  const running = job !== null && (!work || work.state === 'waiting' || work.state === 'running');

  // Of several answers the one to what was asked last counts.
  const last = useRef(0);
  const start = async (what: 'check' | 'apply', id: string, next: Settings) => {
    const mine = ++last.current;
    setWrong(null);
    const got = await call(what === 'check' ? 'importCheck' : 'importApply', { params: { id }, body: next });
    if (mine !== last.current) return;
    if (got.ok) return setJob(got.value.job);
    setWrong(got.errors[0]!.sentence);
    // The file is gone: it is chosen anew, and what was corrected was of the old one.
    if (got.status === 404) setKept(null);
  };
  // Whoever comes back finds the sheet checked again, with what they corrected.
  const resumed = useRef(false);
  const resume = useEffectEvent(() => {
    if (resumed.current || !kept || !mayImport) return;
    resumed.current = true;
    setSettings(kept.settings);
    void start('check', kept.file.id, kept.settings);
  });
  useEffect(() => resume(), [kept]);
  const choose = async (chosen: File | undefined) => {
    if (!chosen) return;
    setReport(null);
    setDone(null);
    setWrong(null);
    const sent = await sendFile('importFile', { query: { name: chosen.name } }, chosen);
    if (!sent.ok) return setWrong(sent.errors[0]!.sentence);
    const fresh = { ...EMPTY, sheet, class: settings.class, site: settings.site, makeTeams: settings.makeTeams };
    resumed.current = true;
    setSettings(fresh);
    setKept({ file: { id: sent.value.id, name: chosen.name }, settings: fresh });
    await start('check', sent.value.id, fresh);
  };
  const change = (part: Partial<Settings>) => {
    const next = { ...settings, ...part };
    setSettings(next);
    if (!file) return;
    setKept({ file, settings: withoutSecrets(next, report) });
    void start('check', file.id, next);
  };
  const writes = report ? report.counts.add + report.counts.change : 0;
  const over = report?.limits.some((l) => l.over > 0) ?? false;
  const summary = report?.counts;

  const title = `Import or export ${words}`;
  if (!mayImport) return <NotYours title={title} />;
  return (
    <Workspace
      title={title}
      lead={sheet === 'people' ? PEOPLE_LEAD : sheet === 'routeRule' ? RULE_LEAD : KIND_LEAD}
      acts={sheet === 'people' ? <PeopleExports /> : <KindExports kind={sheet} />}
      pane={
        <>
          <PaneSection title="How it goes">
            Nothing is written before you say so, and then every row or none. One undo (Ctrl Z) takes the whole import
            back.
          </PaneSection>
          {sheet === 'inboundRoute' || sheet === 'routeRule' ? (
            <PaneSection title="Routes and their time rules">
              Each has a sheet of its own:{' '}
              {sheet === 'routeRule' ? (
                <Link href="/import/inboundRoute">inbound routes</Link>
              ) : (
                <Link href="/import/routeRule">their time rules</Link>
              )}
              . A rule names its route.
            </PaneSection>
          ) : null}
          <PaneSection title="A sheet to begin with">
            An export is a sheet that changes nothing when it is imported again: change cells in it, or add rows.
          </PaneSection>
        </>
      }
    >
      <Box maxW="980px">
        <LimitLines limits={limits} />
        <Flex gap="12px" wrap="wrap" align="flex-end" mb="16px">
          <Box w="300px">
            <Labelled title="File" htmlFor="import-file">
              <chakra.input
                id="import-file"
                type="file"
                accept=".csv,.txt,.tsv,.xlsx,text/csv"
                fontSize="13px"
                onChange={(e) => void choose(e.target.files?.[0])}
              />
            </Labelled>
          </Box>
          {asks.site ? (
            <Box w="180px">
              <Labelled title="Site of rows that name none" htmlFor="import-site">
                <SelectBox
                  id="import-site"
                  value={settings.site ?? ''}
                  onChange={(e) => change({ site: e.target.value || null })}
                >
                  <option value="">{sheet === 'people' ? 'by its range of digits' : 'none'}</option>
                  {sites.map((s) => (
                    <option key={s.id} value={s.id}>
                      {s.label}
                    </option>
                  ))}
                </SelectBox>
              </Labelled>
            </Box>
          ) : null}
          {asks.class ? (
            <Box w="160px">
              <Labelled title="Class of rows that name none" htmlFor="import-class">
                <SelectBox
                  id="import-class"
                  value={settings.class ?? ''}
                  onChange={(e) => change({ class: e.target.value || null })}
                >
                  {classes.map((c) => (
                    <option key={c.id} value={c.id}>
                      {c.label}
                    </option>
                  ))}
                </SelectBox>
              </Labelled>
            </Box>
          ) : null}
          {asks.teams ? (
            <Flex as="label" gap="8px" align="center" h="32px">
              <TickBox
                type="checkbox"
                checked={settings.makeTeams}
                onChange={(e) => change({ makeTeams: e.target.checked })}
              />
              Make teams that do not exist
            </Flex>
          ) : null}
        </Flex>
        {file ? null : (
          <Paste people={sheet === 'people'} onRows={(text) => void choose(new File([text], 'pasted rows.csv'))} />
        )}
        {file ? (
          <Box color="quiet" fontSize="13px" mb="10px" data-testid="import-kept">
            {file.name}, with {Object.keys(settings.corrections).length} corrected{' '}
            {Object.keys(settings.corrections).length === 1 ? 'row' : 'rows'}. It stays here until it is written or{' '}
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
        {running ? <JobBar job={work} what={file?.name ?? 'Import'} /> : null}
        {wrong ? (
          <Box mb="14px">
            <Wrong>{wrong}</Wrong>
          </Box>
        ) : null}
        {done ? (
          <Box
            role="status"
            border="1px solid"
            borderColor="pine"
            rounded="4px"
            p="12px"
            mb="14px"
            data-testid="import-done"
          >
            {done.counts.add} added, {done.counts.change} changed, {done.counts.same} the same. It is in the draft, as
            one edit.
            <Flex gap="8px" mt="8px">
              <ActLink href={listPath}>{words.charAt(0).toUpperCase() + words.slice(1)}</ActLink>
              <ActLink href="/go-live">Read what differs from live</ActLink>
            </Flex>
          </Box>
        ) : null}
        {report && !done ? (
          <>
            <Recognised report={report} />
            <MappingPart
              report={report}
              mapping={settings.mapping ?? report.mapping}
              onChange={(mapping) => change({ mapping })}
            />
            {report.limits.length > 0 ? (
              <Box mb="14px" data-testid="import-limits">
                <PartTitle>Limits with this sheet</PartTitle>
                {report.limits.map((l) => (
                  <Box key={l.words} fontSize="13px" color={l.over > 0 ? 'brick' : 'ink'}>
                    {l.words}: {l.wanted} of {l.most}
                    {l.over > 0 ? `, ${l.over} too many` : `, ${l.most - l.wanted} left`}
                  </Box>
                ))}
              </Box>
            ) : null}
            {summary ? (
              <Grid
                templateColumns="repeat(5, auto)"
                gap="24px"
                justifyContent="start"
                mb="14px"
                data-testid="import-counts"
              >
                <Count n={summary.add} words="new" />
                <Count n={summary.change} words="changed" />
                <Count n={summary.same} words="the same" />
                <Count n={summary.wrong} words="wrong" bad={summary.wrong > 0} />
                <Count n={summary.leftOut} words="left out" />
              </Grid>
            ) : null}
            <RowsPart report={report} settings={settings} busy={running} onChange={change} />
            <Flex gap="8px" mt="16px">
              <Act
                look="main"
                disabled={running || writes === 0 || report.counts.wrong > 0 || over}
                onClick={() => file && void start('apply', file.id, settings)}
              >
                {report.counts.wrong > 0
                  ? `${report.counts.wrong} ${report.counts.wrong === 1 ? 'row is' : 'rows are'} wrong`
                  : `Write ${writes} ${writes === 1 ? 'row' : 'rows'} to the draft`}
              </Act>
            </Flex>
          </>
        ) : null}
      </Box>
    </Workspace>
  );
}

const PeopleExports = () => (
  <>
    <ActLink href={addressOf('exportSheet', { query: { format: 'csv' } })}>Export CSV</ActLink>
    <ActLink href={addressOf('exportSheet', { query: { format: 'xlsx' } })}>Export workbook</ActLink>
    <ActLink href={addressOf('exportDirectory', { query: { format: 'vcard' } })}>Directory, vCard</ActLink>
    <ActLink href={addressOf('exportDirectory', { query: { format: 'csv' } })}>Directory, CSV</ActLink>
  </>
);

const KindExports = ({ kind }: { kind: SheetKind }) => (
  <>
    <ActLink href={addressOf('exportKind', { params: { kind }, query: { format: 'csv' } })}>Export CSV</ActLink>
    <ActLink href={addressOf('exportKind', { params: { kind }, query: { format: 'xlsx' } })}>Export workbook</ActLink>
  </>
);

/** Settings without corrected PINs and passwords: those are never kept in a browser. */
function withoutSecrets(settings: Settings, report: Report | null): Settings {
  const mapping = settings.mapping ?? report?.mapping ?? {};
  const secret = new Set(
    (report?.columns ?? []).flatMap(({ key, secret: hidden }) =>
      hidden && mapping[key] !== undefined ? [String(mapping[key])] : [],
    ),
  );
  const corrections = Object.entries(settings.corrections ?? {}).flatMap(([row, cells]) => {
    const kept = Object.entries(cells).filter(([column]) => !secret.has(column));
    return kept.length > 0 ? [[row, Object.fromEntries(kept)]] : [];
  });
  return { ...settings, corrections: Object.fromEntries(corrections) as Settings['corrections'] };
}
