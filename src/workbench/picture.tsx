'use client';

import { Box, Flex, Grid, chakra } from '@chakra-ui/react';
import type { Picture as PictureData, PictureLine } from '@/core/analysis';
import { PartTitle } from '@/ui/controls';
import { CourseView, CourseWaits } from '@/ui/course-view';
import { Glyph } from '@/ui/glyph';
import { useKinds } from '@/ui/kinds';
import { Later } from '@/ui/later';
import { Link } from '@/ui/link';
import type { Around } from './form-data';

/** What an object does, from the engine: its course, and lines of what it is about. It comes after the page. */
export function Picture({ around, course = false }: { around: Promise<Around>; course?: boolean }) {
  return (
    <Later of={around} waiting={course ? <CourseWaits /> : <Box minH="80px" />}>
      {(known) => (
        <Box data-testid="picture">
          {course && known.course ? (
            <Box mb="14px">
              <CourseView course={known.course} />
            </Box>
          ) : null}
          {known.picture ? <Drawn picture={known.picture} /> : null}
        </Box>
      )}
    </Later>
  );
}

function Drawn({ picture }: { picture: PictureData }) {
  return (
    <>
      {picture.groups.length > 0 ? (
        <Grid
          templateColumns={{ base: '1fr', md: 'repeat(auto-fit, minmax(210px, 1fr))' }}
          gap="20px"
          border="1px solid"
          borderColor="line"
          rounded="4px"
          bg="raised"
          p="14px"
          maxW="760px"
        >
          {picture.groups.map((g) => (
            <Box key={g.title} minW={0}>
              <PartTitle>{g.title}</PartTitle>
              {g.lines.map((l, i) => (
                <Line key={i} line={l} />
              ))}
              {g.more > 0 ? <Box color="quiet">and {g.more} more</Box> : null}
            </Box>
          ))}
        </Grid>
      ) : null}
    </>
  );
}

function Line({ line: l }: { line: PictureLine }) {
  const { pathOf } = useKinds();
  const href = l.object ? pathOf(l.object.kind, l.object.id) : null;
  return (
    <Flex gap="8px" align="flex-start" mb="4px" fontSize="13px">
      <Box pt="2px" flexShrink={0}>
        <Glyph kind={l.kind} />
      </Box>
      <Box minW={0} overflowWrap="anywhere">
        {href ? (
          <Link href={href} style={{ textDecoration: 'underline' }}>
            {l.label}
          </Link>
        ) : (
          <chakra.span fontWeight={500}>{l.label}</chakra.span>
        )}
        {l.detail ? <chakra.span color="quiet"> {l.detail}</chakra.span> : null}
      </Box>
    </Flex>
  );
}
