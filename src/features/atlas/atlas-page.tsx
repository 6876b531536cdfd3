'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import type { Answer } from '@/contract';
import { Act, ActLink, Empty, PartTitle, Wrong } from '@/ui/controls';
import { Link } from '@/ui/link';
import { useWriting } from '@/ui/time';
import { Workspace } from '@/ui/workspace';
import { formFields } from '@/workbench/form-fields';
import { addressOf } from '@/workbench/api';
import { PhoneBox } from '@/workbench/phone-box';
import { useAsked } from '@/workbench/use-asked';
import { PartitionBars } from './partition-bars';
import { SORTS, sortOf, type Sort } from './sorts';
import { Swatch } from './swatch';
import { RegionTable } from './region-table';

interface Asked {
  phone: string;
  at: string;
  under: string;
  /** draft, live or the number of a revision */
  of: string;
  mayEdit: boolean;
}

const pathOf = ({ phone, at, under, of }: Asked): string => {
  const query = new URLSearchParams({
    phone,
    ...(at === 'now' ? {} : { at }),
    ...(under ? { under } : {}),
    ...(of === 'draft' ? {} : { of }),
  });
  return `/atlas?${query.toString()}`;
};

/** Everything that one phone can dial: the whole digit space, cut by what happens. */
export function AtlasPage(asked: Asked) {
  const { phone, at, under, of } = asked;
  const query = { phone, at, of, together: 'true', ...(under ? { under } : {}) } as const;
  const atlas = useAsked('atlas', phone ? { query } : null, { keep: true });
  const write = useWriting();
  const [only, setOnly] = useState<Sort | null>(null);
  const value = atlas.value;
  return (
    <Workspace
      title={value ? `Everything ${value.phone.digits} ${value.phone.name} can dial` : 'Atlas'}
      lead={
        value
          ? `${value.phone.site}, ${write(value.at, { zone: value.zone, weekday: true })}. Every string of 1 to 32 symbols is in one region.`
          : 'The whole digit space of a phone, cut into regions by what happens.'
      }
      acts={
        value ? (
          <>
            <ActLink href={addressOf('atlasFile', { query: { phone, at, of } } as never)} download>
              Save as CSV
            </ActLink>
            <ActLink
              href={addressOf('atlas', { query: { phone, at, of } } as never)}
              download={`atlas-${value.phone.digits}.json`}
            >
              Save as JSON
            </ActLink>
          </>
        ) : undefined
      }
    >
      <AskedFor asked={asked} />
      {atlas.wrong ? <Wrong>{atlas.wrong}</Wrong> : null}
      {!phone ? <Empty>No extension has a phone yet: what phones can dial is shown here once one has.</Empty> : null}
      <Box aria-busy={atlas.waiting} minH="420px">
        {value ? (
          <>
            <Crumbs asked={asked} />
            <PartitionBars value={value} pathTo={(digits) => pathOf({ ...asked, under: digits })} under={under} />
            <PartTitle
              aside={
                <Flex role="group" aria-label="Which regions" gap="4px" wrap="wrap">
                  {[null, ...SORTS].map((s) => (
                    <Act key={s?.id ?? ''} aria-pressed={only === s} onClick={() => setOnly(s)}>
                      {s ? <Swatch sort={s} /> : null}
                      {s?.words ?? 'all'} {countIn(value, s)}
                    </Act>
                  ))}
                </Flex>
              }
            >
              Regions {under ? `of strings that begin with ${under}` : ''}
            </PartTitle>
            <RegionTable
              phone={phone}
              at={at}
              under={under}
              shown={shownIn(value, only)}
              mayEdit={asked.mayEdit && of === 'draft'}
            />
          </>
        ) : null}
      </Box>
    </Workspace>
  );
}

/** The regions that strings under the digits asked about are in, of one sort or all. */
function shownIn({ regions, next }: Answer<'atlas'>, only: Sort | null) {
  const here = new Set(next.flatMap((n) => n.parts.map((p) => p.region)));
  const order = (r: (typeof regions)[number]) => SORTS.indexOf(sortOf(r));
  return regions
    .filter((r, i) => here.has(i) && (only === null || sortOf(r) === only))
    .sort((a, b) => order(a) - order(b));
}

const countIn = (value: Answer<'atlas'>, sort: Sort | null): number => shownIn(value, sort).length;

/** The digits that were opened, each leading back. */
function Crumbs({ asked }: { asked: Asked }) {
  if (!asked.under) return null;
  return (
    <Flex as="nav" aria-label="Digits opened" gap="6px" mb="8px" fontFamily="mono">
      <Link href={pathOf({ ...asked, under: '' })}>all</Link>
      {[...asked.under].map((symbol, i) => (
        <Link
          key={i}
          href={pathOf({ ...asked, under: asked.under.slice(0, i + 1) })}
          aria-label={asked.under.slice(0, i + 1)}
        >
          {symbol}
        </Link>
      ))}
    </Flex>
  );
}

function AskedFor({ asked }: { asked: Asked }) {
  const router = useRouter();
  const form = useForm({ values: { phone: asked.phone, at: asked.at, of: asked.of } });
  const { field, text } = formFields(form, { prefix: 'atlas' });
  const ask = form.handleSubmit(({ phone, at, of }) =>
    router.push(pathOf({ ...asked, phone: phone.trim(), at: at.trim() || 'now', of: of.trim() || 'draft' })),
  );
  return (
    <chakra.form mb="14px" onSubmit={(e) => void ask(e)}>
      <Flex gap="10px" align="flex-end" wrap="wrap">
        <Box flex="1" minW="130px" maxW="230px">
          {field('phone', 'Phone', ({ change, ...rest }) => (
            <PhoneBox {...rest} onChange={change} />
          ))}
        </Box>
        <Box w="150px">{text('at', 'When')}</Box>
        <Box w="150px">{text('of', 'Plan', { placeholder: 'draft, live or 2' })}</Box>
        <Act look="main" type="submit" h="32px">
          Show
        </Act>
      </Flex>
    </chakra.form>
  );
}
