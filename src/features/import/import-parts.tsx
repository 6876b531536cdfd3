'use client';

import { Box, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import { Act, AreaBox, Labelled } from '@/ui/controls';
import type { Report } from './report';

/** Rows copied out of a sheet, with its column names on top: the same as a file. */
export function Paste({ people, onRows }: { people: boolean; onRows: (text: string) => void }) {
  const [text, setText] = useState('');
  return (
    <Box mb="16px" maxW="760px">
      <Labelled
        title="Or paste rows out of a sheet, the names of its columns on top"
        htmlFor="import-paste"
        hint={
          people
            ? 'Extension and Name are enough; E-mail, Number, Team, Mailbox and others are known too.'
            : 'The names are those of an export; what is missing stays as it is, or is what new ones get.'
        }
      >
        <AreaBox
          id="import-paste"
          h="120px"
          fontFamily="mono"
          fontSize="13px"
          placeholder={
            people ? 'Extension\tName\tE-mail\n2001\tSanna Quist\tsanna@quaywright.example' : 'Name\tDigits\tNote'
          }
          value={text}
          onChange={(e) => setText(e.target.value)}
        />
      </Labelled>
      <Act mt="8px" disabled={text.trim() === ''} onClick={() => onRows(text)}>
        Check these rows
      </Act>
    </Box>
  );
}

export function Recognised({ report }: { report: Report }) {
  const { format, encoding, separator, sheet } = report.recognised;
  const separators: Record<string, string> = { ',': 'commas', ';': 'semicolons', '\t': 'tabs', '|': 'bars' };
  return (
    <Box color="quiet" mb="12px" data-testid="recognised">
      {report.file}:{' '}
      {format === 'CSV'
        ? `CSV in ${encoding} with ${separators[separator ?? ','] ?? separator}`
        : `workbook, sheet “${sheet}”`}
      , {report.counts.rows} rows.
    </Box>
  );
}

export function Count({ n, words, bad = false }: { n: number; words: string; bad?: boolean }) {
  return (
    <Box color={bad ? 'brick' : 'ink'}>
      <chakra.span fontSize="20px" fontWeight={700} mr="6px">
        {n}
      </chakra.span>
      {words}
    </Box>
  );
}
