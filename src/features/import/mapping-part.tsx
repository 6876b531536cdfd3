'use client';

import { Box, Grid, chakra } from '@chakra-ui/react';
import { COLUMNS, COLUMN_KEYS, type ColumnKey, type Mapping } from '@/core/acts/import/columns';
import { PartTitle, SelectBox } from '@/ui/controls';
import type { Report } from './report';

/** Which column of the sheet is what: matched by name, to be corrected here. */
export function MappingPart({ report, onChange }: { report: Report; onChange: (mapping: Mapping) => void }) {
  const keyOf = (column: number) => COLUMN_KEYS.find((k) => report.mapping[k] === column) ?? '';
  const put = (column: number, key: ColumnKey | '') => {
    const next = { ...report.mapping };
    for (const k of COLUMN_KEYS) if (next[k] === column || k === key) delete next[k];
    if (key) next[key] = column;
    onChange(next);
  };
  const unread = report.header.flatMap((name, i) => (keyOf(i) === '' ? [`“${name || `column ${i + 1}`}”`] : []));
  return (
    <Box mb="16px">
      <PartTitle>Columns of the sheet</PartTitle>
      {report.mapping.digits === undefined ? (
        <Box role="alert" color="brick" mb="8px">
          No column is the extension; choose which one it is.
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
              <SelectBox
                value={key}
                aria-label={`What “${name}” is`}
                onChange={(e) => put(i, e.target.value as ColumnKey | '')}
              >
                <option value="">not read</option>
                {COLUMN_KEYS.map((k) => (
                  <option key={k} value={k}>
                    {COLUMNS[k].title}
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
