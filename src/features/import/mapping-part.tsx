'use client';

import { Box, Grid, chakra } from '@chakra-ui/react';
import { PartTitle, SelectBox } from '@/ui/controls';
import type { Report } from './report';

/** Which column of the sheet is what: matched by name, to be corrected here. */
export function MappingPart({
  report,
  mapping,
  onChange,
}: {
  report: Report;
  /** as it was chosen last, whether the sheet was read with it already or not */
  mapping: Report['mapping'];
  onChange: (mapping: Report['mapping']) => void;
}) {
  const { columns } = report;
  const keyOf = (column: number) => columns.find((c) => mapping[c.key] === column)?.key ?? '';
  const put = (column: number, key: string) => {
    const next = Object.fromEntries(Object.entries(mapping).filter(([k, at]) => at !== column && k !== key));
    if (key) next[key] = column;
    onChange(next);
  };
  const unread = report.header.flatMap((name, i) => (keyOf(i) === '' ? [`“${name || `column ${i + 1}`}”`] : []));
  return (
    <Box mb="16px">
      <PartTitle>Columns of the sheet</PartTitle>
      {report.missing !== null ? (
        <Box role="alert" color="brick" mb="8px">
          No column is {report.missing.toLowerCase()}; choose which one it is.
        </Box>
      ) : null}
      {unread.length > 0 ? (
        <Box role="status" borderLeft="3px solid" borderColor="saffron" pl="10px" mb="8px" data-testid="unread-columns">
          {unread.length === 1 ? 'One column is not read' : `${unread.length} columns are not read`}:{' '}
          {unread.join(', ')}. What stands there is not written; say what it is if it should be.
        </Box>
      ) : null}
      <Grid templateColumns="repeat(auto-fill, minmax(170px, 1fr))" gap="8px 12px">
        {report.header.map((name, i) => {
          const key = keyOf(i);
          return (
            <chakra.label key={i} fontSize="12px" color="quiet">
              <chakra.span color={key ? 'ink' : 'quiet'}>{name || `column ${i + 1}`}</chakra.span>
              <SelectBox value={key} aria-label={`What “${name}” is`} onChange={(e) => put(i, e.target.value)}>
                <option value="">not read</option>
                {columns.map((c) => (
                  <option key={c.key} value={c.key}>
                    {c.title}
                  </option>
                ))}
              </SelectBox>
            </chakra.label>
          );
        })}
      </Grid>
    </Box>
  );
}
