'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import type { KeyPath } from '@/core/analysis/key-paths';
import { Act, PartTitle, TextBox, Wrong } from '@/ui/controls';
import { Glyph } from '@/ui/glyph';
import { useWriting } from '@/ui/time';
import { useAsked } from '@/workbench/use-asked';

const MARKS: Record<NonNullable<KeyPath['mark']>, { words: string; colour: string }> = {
  'dead end': { words: 'dead end', colour: 'brick' },
  loop: { words: 'loop', colour: 'brick' },
  back: { words: 'back at a level', colour: 'quiet' },
  ends: { words: 'the call ends', colour: 'quiet' },
};

/** Every path of keys as a table, asked for when it is opened: where each ends, when, and what is heard; it can be printed. */
export function KeyPaths({ id, name }: { id: string; name: string }) {
  const [open, setOpen] = useState(false);
  const [at, setAt] = useState('now');
  const [typed, setTyped] = useState('now');
  const asked = useAsked('keyPaths', open ? { params: { id }, query: { at } } : null, { keep: true, fresh: true });
  const write = useWriting();
  const paths = asked.value?.paths ?? [];
  const wrong = paths.filter((p) => p.mark === 'dead end' || p.mark === 'loop').length;
  return (
    <Box as="section" aria-label="Every path of keys" mt="16px">
      <Flex gap="10px" align="center" wrap="wrap">
        <Act aria-expanded={open} onClick={() => setOpen(!open)}>
          {open ? 'Fold every path of keys' : 'Try every path of keys'}
        </Act>
        {open ? (
          <>
            <chakra.form
              display="flex"
              gap="6px"
              alignItems="center"
              onSubmit={(e) => {
                e.preventDefault();
                setAt(typed.trim() || 'now');
              }}
            >
              <TextBox aria-label="When" w="120px" value={typed} onChange={(e) => setTyped(e.target.value)} />
              <Act type="submit">At that time</Act>
            </chakra.form>
            <Act onClick={() => window.print()}>Print</Act>
            {asked.value ? (
              <chakra.span color="quiet" fontSize="13px">
                {write(asked.value.at, { weekday: true })} · {paths.length} paths, up to four keys
                {wrong > 0 ? `, ${wrong} that lead nowhere` : ', none leads nowhere'}
                {asked.value.whole ? '' : '; there are more'}
              </chakra.span>
            ) : null}
          </>
        ) : null}
      </Flex>
      {asked.wrong ? <Wrong>{asked.wrong}</Wrong> : null}
      {open && asked.value ? (
        <Box overflowX="auto" mt="8px">
          <PartTitle>{name}: every path of keys</PartTitle>
          <chakra.table
            w="100%"
            fontSize="13px"
            data-testid="key-paths"
            css={{ '& td, & th': { padding: '4px 10px 4px 0', textAlign: 'left', verticalAlign: 'top' } }}
          >
            <thead>
              <tr>
                {['Keys', 'After', 'Ends at', 'Heard on the way'].map((title) => (
                  <chakra.th key={title} color="quiet" fontWeight={400}>
                    {title}
                  </chakra.th>
                ))}
              </tr>
            </thead>
            <tbody>
              {paths.map((p) => (
                <chakra.tr key={p.keys.join(' ')} borderTop="1px solid" borderColor="line">
                  <chakra.td fontFamily="mono" whiteSpace="nowrap">
                    {p.keys.join(' ')}
                  </chakra.td>
                  <chakra.td whiteSpace="nowrap">{Math.round(p.seconds * 10) / 10} s</chakra.td>
                  <td>
                    <Flex gap="6px" align="center">
                      <Glyph kind={p.lands?.kind ?? 'refused'} />
                      {p.lands?.label ?? 'nowhere'}
                      {p.mark ? <chakra.b color={MARKS[p.mark].colour}>{MARKS[p.mark].words}</chakra.b> : null}
                    </Flex>
                  </td>
                  <chakra.td color="quiet">
                    {p.heard.map((h) => (h.length > 40 ? `${h.slice(0, 40)}…` : h)).join(' · ')}
                  </chakra.td>
                </chakra.tr>
              ))}
            </tbody>
          </chakra.table>
        </Box>
      ) : null}
    </Box>
  );
}
