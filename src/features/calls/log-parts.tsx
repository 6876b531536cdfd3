'use client';

import { Box, Flex, Grid, chakra } from '@chakra-ui/react';
import type { LogReport } from '@/contract/records';
import { ActLink, PartTitle, SelectBox } from '@/ui/controls';
import { useWriting } from '@/ui/time';
import { duration } from './party';

/* What is shown of a call log: which column is what, the calls that its rows become, what is wrong, and what came of keeping it. */

export const calls = (n: number) => `${n.toLocaleString('en')} ${n === 1 ? 'call' : 'calls'}`;

/** What was kept. */
export function Done({ report: r }: { report: LogReport }) {
  const span: Record<string, string> = r.from && r.to ? { from: r.from.slice(0, 10), to: r.to.slice(0, 10) } : {};
  return (
    <Box role="status" border="1px solid" borderColor="pine" rounded="4px" p="12px" mb="14px" data-testid="log-done">
      {calls(r.added ?? 0)} added, {(r.calls - (r.added ?? 0)).toLocaleString('en')} there already
      {r.wrong > 0 ? `, ${r.wrong.toLocaleString('en')} rows left out` : ''}
      {r.tooOld > 0 ? `, ${r.tooOld.toLocaleString('en')} older than is kept` : ''}.
      <Flex gap="8px" mt="8px">
        <ActLink href={`/calls?${new URLSearchParams(span)}`}>Look at them</ActLink>
        <ActLink href={`/calls/replay?${new URLSearchParams(span)}`}>Replay them</ActLink>
      </Flex>
      <Faults report={r} />
    </Box>
  );
}

/** Which column of the log is what. */
export function Columns({
  report,
  columns,
  onChange,
}: {
  report: LogReport;
  /** as they were chosen last, whether the log was read with them already or not */
  columns: Record<string, number>;
  onChange: (columns: Record<string, number>) => void;
}) {
  if (report.format === 'JSON lines') return null;
  const keyOf = (at: number) => Object.keys(columns).find((k) => columns[k] === at) ?? '';
  const put = (at: number, key: string) => {
    const next = Object.fromEntries(Object.entries(columns).filter(([k, v]) => v !== at && k !== key));
    if (key) next[key] = at;
    onChange(next);
  };
  return (
    <Box mb="16px">
      <PartTitle>Columns of the log</PartTitle>
      {report.unread.length > 0 ? (
        <Box role="status" borderLeft="3px solid" borderColor="saffron" pl="10px" mb="8px" data-testid="unread-columns">
          Not read: {report.unread.map((u) => `“${u}”`).join(', ')}. Say what they are if they should be.
        </Box>
      ) : null}
      <Grid templateColumns="repeat(auto-fill, minmax(150px, 1fr))" gap="8px 12px">
        {report.header.map((name, at) => (
          <chakra.label key={at} fontSize="12px" color="quiet">
            <chakra.span color={keyOf(at) ? 'ink' : 'quiet'}>{name || `column ${at + 1}`}</chakra.span>
            <SelectBox value={keyOf(at)} aria-label={`What “${name}” is`} onChange={(e) => put(at, e.target.value)}>
              <option value="">not read</option>
              {report.known.map((c) => (
                <option key={c.key} value={c.key} title={c.note}>
                  {c.title}
                </option>
              ))}
            </SelectBox>
          </chakra.label>
        ))}
      </Grid>
    </Box>
  );
}

/** What the rows that were read become, and what is wrong in which cell. */
export function Found({ report: r, zone }: { report: LogReport; zone: string }) {
  const write = useWriting();
  return (
    <>
      <Box mb="10px" data-testid="log-found">
        {r.whole ? '' : 'Of the first '}
        {r.rows.toLocaleString('en')} {r.rows === 1 ? 'row' : 'rows'}, {calls(r.calls)}
        {r.wrong > 0 ? `, ${r.wrong.toLocaleString('en')} wrong` : ''}
        {r.tooOld > 0 ? `, ${r.tooOld.toLocaleString('en')} older than is kept` : ''}
        {r.from && r.to ? `; from ${write(r.from, { zone })} to ${write(r.to, { zone })}, ${zone}` : ''}.
      </Box>
      {r.sample.length > 0 ? (
        <Box overflowX="auto" mb="16px">
          <chakra.table
            fontSize="13px"
            css={{
              '& td, & th': { padding: '3px 16px 3px 0', textAlign: 'left', fontWeight: 400, whiteSpace: 'nowrap' },
            }}
          >
            <thead>
              <chakra.tr color="quiet" fontSize="12px">
                <th>When</th>
                <th>From</th>
                <th>Called</th>
                <th>What came of it</th>
                <th>Answered by</th>
                <th>Lasted</th>
              </chakra.tr>
            </thead>
            <tbody>
              {r.sample.slice(0, 8).map((c, i) => (
                <chakra.tr key={i} borderTop="1px solid" borderColor="line">
                  <td>{write(c.started, { zone })}</td>
                  <chakra.td fontFamily="mono">{c.from}</chakra.td>
                  <chakra.td fontFamily="mono">{c.to}</chakra.td>
                  <td>{c.result}</td>
                  <td>{c.by}</td>
                  <td>{duration(c.seconds)}</td>
                </chakra.tr>
              ))}
            </tbody>
          </chakra.table>
        </Box>
      ) : null}
      <Faults report={r} />
    </>
  );
}

const SHOWN = 50;

function Faults({ report: r }: { report: LogReport }) {
  if (r.faults.length === 0) return null;
  return (
    <Box mt="12px" data-testid="log-faults">
      <PartTitle>Rows that can’t be read</PartTitle>
      {r.faults.slice(0, SHOWN).map((f, i) => (
        <Box key={i} borderTop="1px solid" borderColor="line" py="4px">
          <b>
            Line {f.line}
            {f.title ? `, ${f.title}` : ''}
          </b>
          : {f.sentence}
          <Box
            color="quiet"
            fontSize="12px"
            fontFamily="mono"
            overflow="hidden"
            textOverflow="ellipsis"
            whiteSpace="nowrap"
          >
            {f.cells.map((cell, at) => (
              <chakra.span key={at} color={r.columns[f.column ?? ''] === at ? 'brick' : undefined}>
                {at > 0 ? ' · ' : ''}
                {cell || '–'}
              </chakra.span>
            ))}
          </Box>
        </Box>
      ))}
      {r.wrong > SHOWN ? <Box color="quiet">and {(r.wrong - SHOWN).toLocaleString('en')} more</Box> : null}
    </Box>
  );
}
