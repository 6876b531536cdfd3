'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import { Act, TextBox, Wrong } from '@/ui/controls';
import { Link } from '@/ui/link';
import { useAsked } from '@/workbench/use-asked';

const SHOWN = 60;

/** What each name is on the keypad: first those that collide, and those that can't be spelt at all. */
export function NamesOnKeys({ site }: { site: string }) {
  const [open, setOpen] = useState(false);
  const [typed, setTyped] = useState('');
  const asked = useAsked('namesOnKeys', open ? { query: { site } } : null, { keep: true });
  const people = asked.value?.people ?? [];
  const wanted = typed.trim().toLowerCase();
  const rank = (p: (typeof people)[number]) => (p.keys.length === 0 ? 0 : p.same.length > 0 ? 1 : 2);
  const found = people
    .filter((p) => wanted === '' || p.name.toLowerCase().includes(wanted) || p.keys.some((k) => k.startsWith(wanted)))
    .sort((a, b) => rank(a) - rank(b) || a.name.localeCompare(b.name));
  const collide = people.filter((p) => p.same.length > 0).length;
  const unspelt = people.filter((p) => p.keys.length === 0).length;
  return (
    <Box as="section" aria-label="Names on the keypad" mt="10px">
      <Flex gap="10px" align="center" wrap="wrap">
        <Act aria-expanded={open} onClick={() => setOpen(!open)}>
          {open ? 'Fold the names on the keypad' : 'Names on the keypad'}
        </Act>
        {open && asked.value ? (
          <>
            <TextBox
              aria-label="A name, or keys"
              placeholder="a name, or keys such as 628"
              w="200px"
              value={typed}
              onChange={(e) => setTyped(e.target.value)}
            />
            <chakra.span color="quiet" fontSize="13px">
              {people.length} people ·{' '}
              {collide === 0
                ? 'no two names are the same keys'
                : `${collide} whose name is another’s keys too: both are read out`}
              {unspelt > 0 ? ` · ${unspelt} without letters on a key: type a spelling` : ''}
            </chakra.span>
          </>
        ) : null}
      </Flex>
      {asked.wrong ? <Wrong>{asked.wrong}</Wrong> : null}
      {open
        ? found.slice(0, SHOWN).map((p) => (
            <Flex
              key={p.id}
              gap="12px"
              py="3px"
              borderBottom="1px solid"
              borderColor="line"
              fontSize="13px"
              wrap="wrap"
            >
              <Box w="200px">
                <Link href={`/extensions/${p.id}`}>
                  {p.digits} {p.name}
                </Link>
              </Box>
              <chakra.span fontFamily="mono" w="170px">
                {p.keys[0] ?? 'on no key'}
              </chakra.span>
              <chakra.span color={p.same.length > 0 || p.keys.length === 0 ? 'saffronText' : 'quiet'}>
                {p.keys.length === 0
                  ? 'needs a typed spelling'
                  : p.same.length > 0
                    ? `the same keys as ${p.same.join(', ')}`
                    : p.alike > 0
                      ? `${p.alike} more begin with ${p.keys[0]!.slice(0, 3)}`
                      : 'found by three letters'}
                {p.spelling ? ` · spelt ${p.spelling}` : ''}
              </chakra.span>
            </Flex>
          ))
        : null}
      {open && found.length > SHOWN ? (
        <Box color="quiet" fontSize="13px">
          and {found.length - SHOWN} more
        </Box>
      ) : null}
    </Box>
  );
}
