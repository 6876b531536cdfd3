'use client';

import { Box, Flex, Grid, chakra } from '@chakra-ui/react';
import { useRouter } from 'next/navigation';
import { Labelled, PartTitle, SelectBox } from '@/ui/controls';
import { Digits } from '@/ui/digits';
import { Glyph } from '@/ui/glyph';
import { Link } from '@/ui/link';
import { Workspace } from '@/ui/workspace';
import { PLACE_WORDS, type PlacesData } from './data';
import { Holder } from './holder';
import { SpaceDrawing } from './space-drawing';

/** The number space of a site as a drawing, what stands out in it, and the kinds of places that have digits there. */
export function PlacesPage({ data }: { data: PlacesData }) {
  const router = useRouter();
  const { space, site } = data;
  return (
    <Workspace
      title="Other places"
      lead="Everything with digits that is no person's phone, and the number space in which it stands."
      acts={
        data.sites.length > 1 ? (
          <Box w="190px">
            <SelectBox
              aria-label="The number space of"
              value={site ?? ''}
              onChange={(e) => router.push(`/places?site=${e.target.value}`)}
            >
              {data.sites.map((s) => (
                <option key={s.id} value={s.id}>
                  {s.label}
                </option>
              ))}
            </SelectBox>
          </Box>
        ) : null
      }
    >
      <Flex gap="28px" wrap="wrap" align="flex-start">
        <Box flex="1 1 470px" minW={0} maxW="620px">
          <PartTitle>The number space, by the first two digits</PartTitle>
          {space && site ? (
            <SpaceDrawing space={space} site={site} />
          ) : (
            <Labelled title="">There is no site yet.</Labelled>
          )}
        </Box>
        <Box flex="1 1 240px" minW="220px" maxW="340px">
          <PartTitle>Places</PartTitle>
          {data.kinds.map((k) => (
            <Flex key={k.name} gap="8px" align="center" h="32px" borderTop="1px solid" borderColor="line">
              <Glyph kind={k.kind} />
              <Link href={`/places/${k.name}`} style={{ flex: 1 }}>
                {PLACE_WORDS[k.name].title}
              </Link>
              <chakra.span color="quiet">{k.count}</chakra.span>
            </Flex>
          ))}
          {space && space.short.length > 0 ? (
            <Box mt="18px">
              <PartTitle>One digit, or with a star</PartTitle>
              {space.short.map((h) => (
                <Holder key={`${h.kind} ${h.id}`} of={h} />
              ))}
            </Box>
          ) : null}
          {space && space.begins.length > 0 ? (
            <Box mt="18px">
              <PartTitle>Phones wait here</PartTitle>
              {space.begins.map(({ shorter, longer, more }) => (
                <Box key={shorter.digits} fontSize="13px" mb="6px">
                  <Digits>{shorter.digits}</Digits> {shorter.label.replace(`${shorter.digits} `, '')} is the beginning
                  of <Digits>{longer.digits}</Digits>
                  {more > 0 ? ` and ${more} more` : ''}: who dials it waits for the timer, or presses #.
                </Box>
              ))}
            </Box>
          ) : null}
        </Box>
      </Flex>
      {space && space.ranges.length > 0 ? (
        <Box mt="22px" maxW="620px">
          <PartTitle>Ranges that sites keep for extensions</PartTitle>
          {space.ranges.map((r) => (
            <Grid key={`${r.site} ${r.from}`} templateColumns="1fr 120px 1fr" gap="10px" alignItems="center" h="28px">
              <span>{r.site}</span>
              <Digits>
                {r.from}–{r.to}
              </Digits>
              <Flex gap="8px" align="center">
                <Box flex="1" h="8px" bg="line" rounded="2px" overflow="hidden">
                  <Box h="100%" bg="pine" style={{ width: `${(r.taken / r.size) * 100}%` }} />
                </Box>
                <chakra.span color="quiet" fontSize="13px" whiteSpace="nowrap">
                  {r.taken} of {r.size}
                </chakra.span>
              </Flex>
            </Grid>
          ))}
        </Box>
      ) : null}
    </Workspace>
  );
}
