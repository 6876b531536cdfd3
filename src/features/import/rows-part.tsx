'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import { Act, PartTitle, TextBox } from '@/ui/controls';
import type { Report, ReportRow, Settings } from './report';

interface Props {
  report: Report;
  settings: Settings;
  busy: boolean;
  onChange: (part: Partial<Settings>) => void;
}

/** The rows that are wrong, mended at their cells or left out; then what the others do. */
export function RowsPart({ report, settings, busy, onChange }: Props) {
  const correct = (row: number, column: number, text: string) =>
    onChange({
      corrections: { ...settings.corrections, [row]: { ...settings.corrections[row], [column]: text } },
    });
  const shown = report.columns.filter((c) => report.mapping[c.key] !== undefined);
  const titleOf = (key: string) => report.columns.find((c) => c.key === key)?.title ?? key;
  return (
    <>
      {report.wrong.length > 0 ? (
        <Box mb="16px" data-testid="wrong-rows">
          <PartTitle
            aside={
              <Act
                h="24px"
                disabled={busy}
                onClick={() => onChange({ leaveOut: [...settings.leaveOut, ...report.wrong.map((r) => r.row)] })}
              >
                Leave {report.counts.wrong === report.wrong.length ? 'all of them' : `these ${report.wrong.length}`} out
              </Act>
            }
          >
            Wrong rows
          </PartTitle>
          {report.wrong.map((r) => (
            <WrongRow
              key={r.row}
              row={r}
              report={report}
              settings={settings}
              busy={busy}
              onCorrect={(column, text) => correct(r.row, column, text)}
              onLeaveOut={() => onChange({ leaveOut: [...settings.leaveOut, r.row] })}
            />
          ))}
        </Box>
      ) : null}
      {report.fine.length > 0 ? (
        <Box>
          <PartTitle>
            {report.fine.length < report.counts.add + report.counts.change + report.counts.leftOut
              ? `What rows do, the first ${report.fine.length}`
              : 'What rows do'}
          </PartTitle>
          <Box
            overflow="auto"
            maxH="320px"
            border="1px solid"
            borderColor="line"
            rounded="4px"
            bg="raised"
            tabIndex={0}
          >
            {report.fine.map((r) => (
              <Flex
                key={r.row}
                gap="12px"
                px="10px"
                h="28px"
                align="center"
                fontSize="13px"
                whiteSpace="nowrap"
                borderBottom="1px solid"
                borderColor="line"
              >
                <chakra.span color="quiet" w="52px">
                  row {r.row + 1}
                </chakra.span>
                <chakra.span
                  w="60px"
                  color={r.action === 'add' ? 'pine' : r.action === 'change' ? 'saffronText' : 'quiet'}
                >
                  {r.action === 'add' ? 'new' : r.action === 'change' ? 'changed' : 'left out'}
                </chakra.span>
                <chakra.span fontFamily="mono" w="60px">
                  {r.digits}
                </chakra.span>
                <chakra.span w="180px" overflow="hidden" textOverflow="ellipsis">
                  {r.name}
                </chakra.span>
                {r.action === 'add'
                  ? shown
                      .filter((c) => !c.secret && c.key !== 'digits' && c.key !== 'name')
                      .map((c) => r.cells[report.mapping[c.key]!])
                      .filter(Boolean)
                      .join(' · ')
                  : r.changes.map((c) => (
                      <span key={c.column}>
                        {titleOf(c.column)}: <chakra.span color="quiet">{c.before || 'none'}</chakra.span> →{' '}
                        {c.after || 'none'}
                      </span>
                    ))}
              </Flex>
            ))}
          </Box>
        </Box>
      ) : null}
    </>
  );
}

function WrongRow({
  row,
  report,
  settings,
  busy,
  onCorrect,
  onLeaveOut,
}: {
  row: ReportRow;
  report: Report;
  settings: Settings;
  busy: boolean;
  onCorrect: (column: number, text: string) => void;
  onLeaveOut: () => void;
}) {
  const byColumn = new Map(row.errors.map((e) => [e.column, e.sentence]));
  const cells = report.columns.filter((c) => byColumn.has(c.key) && report.mapping[c.key] !== undefined);
  const others = row.errors.filter((e) => e.column === null || report.mapping[e.column] === undefined);
  return (
    <Box borderTop="1px solid" borderColor="line" py="8px" data-testid="wrong-row">
      <Flex gap="14px" align="flex-start" wrap="wrap">
        <Box w="190px" lineHeight="32px">
          <chakra.span color="quiet">row {row.row + 1}</chakra.span> {row.digits} {row.name}
        </Box>
        {cells.map(({ key, title }) => (
          <Cell
            key={key}
            title={title}
            text={settings.corrections[row.row]?.[report.mapping[key]!] ?? row.cells[report.mapping[key]!] ?? ''}
            sentence={byColumn.get(key)!}
            onCorrect={(text) => onCorrect(report.mapping[key]!, text)}
          />
        ))}
        <Box flex="1" minW="160px" color="brick" lineHeight="32px">
          {others.map((e) => e.sentence).join(' ')}
        </Box>
        <Act disabled={busy} onClick={onLeaveOut}>
          Leave out
        </Act>
      </Flex>
    </Box>
  );
}

/** A cell that is wrong, typed anew where it stands. */
function Cell({
  title,
  text,
  sentence,
  onCorrect,
}: {
  title: string;
  text: string;
  sentence: string;
  onCorrect: (text: string) => void;
}) {
  const [typed, setTyped] = useState(text);
  const settle = () => typed !== text && onCorrect(typed);
  return (
    <Box w="230px">
      <TextBox
        aria-label={title}
        aria-invalid
        value={typed}
        onChange={(e) => setTyped(e.target.value)}
        onBlur={settle}
        onKeyDown={(e) => e.key === 'Enter' && settle()}
      />
      <Box fontSize="12px" color="brick" role="alert">
        {sentence}
      </Box>
    </Box>
  );
}
