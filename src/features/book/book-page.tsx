'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { useRouter } from 'next/navigation';
import type { ReactNode } from 'react';
import type { Answer } from '@/contract';
import { Act, ActLink, Empty, PartTitle, Wrong } from '@/ui/controls';
import { CourseView } from '@/ui/course-view';
import { endOf } from '@/ui/ends';
import { Glyph } from '@/ui/glyph';
import { useWriting } from '@/ui/time';
import { Workspace } from '@/ui/workspace';
import { addressOf } from '@/workbench/api';
import { PlanChoice } from '@/workbench/plan-choice';
import { useAsked } from '@/workbench/use-asked';

type Book = Answer<'book'>;
type Chapter = Book['chapters'][number];

/** What a book is of: a site or one number, in one plan. */
export interface BookAddress {
  site: string;
  number: string;
  of: string;
}

const pathOf = ({ site, number, of }: BookAddress): string => {
  const query = new URLSearchParams({ ...(site ? { site } : { number }), ...(of === 'draft' ? {} : { of }) });
  return `/book?${query}`;
};

/** A call-flow book to print: for each number where its callers go and when, and who stands behind each place. */
export function BookPage({ site, number, of }: BookAddress) {
  const asked = { site, number, of };
  const router = useRouter();
  const write = useWriting();
  const { value, wrong, waiting } = useAsked('book', { query: asked } as never, { keep: true });
  const plan = of === 'draft' ? 'as drafted' : of === 'live' ? 'as it is live' : `as revision ${of} has it`;
  return (
    <Workspace
      title={value ? `Call-flow book of ${value.title}` : 'Call-flow book'}
      lead={
        value ? `${value.organisation}, ${plan}, ${write(value.at, { zone: value.zone, weekday: true })}` : undefined
      }
      acts={
        <Flex gap="8px" wrap="wrap" _print={{ display: 'none' }}>
          <PlanChoice
            of={of}
            onChoose={(next) => router.push(pathOf({ ...asked, of: next }))}
            label="Book of which plan"
          />
          <Act onClick={() => window.print()}>Print…</Act>
          <ActLink href={addressOf('bookFile', { query: asked } as never)} download>
            Save as PDF
          </ActLink>
        </Flex>
      }
    >
      {wrong ? <Wrong>{wrong}</Wrong> : null}
      <Box aria-busy={waiting} minH="200px" maxW="900px">
        {value ? <Read book={value} /> : wrong ? null : <Box color="quiet">The book is being written.</Box>}
      </Box>
    </Workspace>
  );
}

function Read({ book }: { book: Book }) {
  const { chapters, direct, idle, left } = book;
  if (chapters.length + direct.length + idle.length === 0)
    return <Empty>No number is here yet: the book is of numbers, and of what their callers meet.</Empty>;
  return (
    <>
      {chapters.length > 1 ? (
        <Box as="nav" aria-label="Contents" mb="24px">
          <PartTitle>Numbers with a course of their own</PartTitle>
          <Rows
            list={chapters.map((c) => [
              <chakra.a key={c.id} href={`#${c.id}`} color="plum" textDecoration="underline">
                {c.number}
              </chakra.a>,
              [...new Set(c.ends.map((e) => e.lands?.label ?? e.outcome))].join(', '),
            ])}
          />
        </Box>
      ) : null}
      {left > 0 ? (
        <Box mb="16px">{left} more are not in this book: open the book of a number for each of them.</Box>
      ) : null}
      {chapters.map((c) => (
        <ChapterOf key={c.id} chapter={c} />
      ))}
      {direct.length > 0 ? (
        <Box as="section" aria-label="Numbers that ring a phone directly" mb="24px" breakBefore="page">
          <PartTitle>Numbers that ring a phone directly</PartTitle>
          <Rows
            list={direct.map((d) => [
              d.number,
              [`${d.digits} ${d.name}`, d.then && `then ${d.then}`].filter(Boolean).join(', '),
            ])}
          />
        </Box>
      ) : null}
      {idle.length > 0 ? (
        <Box as="section" aria-label="Numbers that lead nowhere">
          <PartTitle>Numbers that lead nowhere</PartTitle>
          <Rows list={idle.map((n) => [n.number, n.why])} />
        </Box>
      ) : null}
    </>
  );
}

function ChapterOf({ chapter: c }: { chapter: Chapter }) {
  return (
    <Box as="section" id={c.id} aria-label={c.number} mb="36px" breakBefore="page" data-testid="chapter">
      <chakra.h2 fontSize="19px" fontWeight={700}>
        {c.number}
      </chakra.h2>
      <Box color="quiet" mb="12px">
        {[c.site, c.trunk && `comes on ${c.trunk}`, c.note].filter(Boolean).join(' · ')}
      </Box>
      {c.ends.map((e, i) => (
        <Box key={i} mb="14px" breakInside="avoid">
          <Flex gap="6px" align="center" mb="6px" wrap="wrap">
            <Glyph kind={endOf(e)} />
            <chakra.b flexShrink={0}>{e.lands?.label ?? e.outcome}</chakra.b>
            <chakra.span color="quiet">{e.times}</chakra.span>
          </Flex>
          <CourseView course={e.course} />
        </Box>
      ))}
      {c.hours.length > 0 ? (
        <Box mb="14px" breakInside="avoid">
          <PartTitle>Opening hours</PartTitle>
          <Rows list={c.hours.map((h) => [h.label, h.words])} />
        </Box>
      ) : null}
      {c.places
        .filter((p) => p.who.length + p.ways.length > 0)
        .map((p, i) => (
          <Box key={i} mb="14px" breakInside="avoid" data-testid="book-place">
            <Flex gap="6px" align="center" mb="4px">
              <Glyph kind={p.kind} />
              <b>{p.label}</b>
              <chakra.span color="quiet">{p.word}</chakra.span>
            </Flex>
            <Rows
              list={[
                ...(p.who.length > 0 ? [['who', p.who.join(', ')] as const] : []),
                ...p.ways.map((w) => [w.when, w.to] as const),
              ]}
            />
          </Box>
        ))}
    </Box>
  );
}

/** Two columns, a thin line above each row. */
const Rows = ({ list }: { list: readonly (readonly [ReactNode, string])[] }) => (
  <chakra.dl m="0">
    {list.map(([left, right], i) => (
      <Flex key={i} gap="12px" borderTop="1px solid" borderColor="line" py="3px" breakInside="avoid">
        <chakra.dt w="220px" flexShrink={0} overflowWrap="anywhere">
          {left}
        </chakra.dt>
        <chakra.dd m="0" minW={0} color="quiet" overflowWrap="anywhere">
          {right}
        </chakra.dd>
      </Flex>
    ))}
  </chakra.dl>
);
