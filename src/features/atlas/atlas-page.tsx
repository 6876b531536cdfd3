'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { useRouter } from 'next/navigation';
import { useState, type FormEvent } from 'react';
import { useForm } from 'react-hook-form';
import type { Answer } from '@/contract';
import { Act, ActLink, Empty, PartTitle, Wrong } from '@/ui/controls';
import { Link } from '@/ui/link';
import { useWriting } from '@/ui/time';
import { Workspace } from '@/ui/workspace';
import { formFields } from '@/workbench/form-fields';
import { addressOf } from '@/workbench/api';
import { PhoneBox } from '@/workbench/phone-box';
import { LongWait } from '@/workbench/long-wait';
import { useAsked } from '@/workbench/use-asked';
import { useLong } from '@/workbench/use-long';
import { PlanChoice } from '@/workbench/plan-choice';
import { ApartTable } from './apart-table';
import { isCompared, pathOf, type Asked } from './asked';
import { HoursBar } from './hours-bar';
import { PartitionBars } from './partition-bars';
import { SORTS, sortOf, type Sort } from './sorts';
import { Swatch } from './swatch';
import { RegionTable } from './region-table';

/** Everything that one phone can dial: the whole digit space, cut by what happens. */
export function AtlasPage({ mayEdit, ...asked }: Asked & { mayEdit: boolean }) {
  const { phone, at, under, of } = asked;
  const query = { phone, at, of, together: 'true', ...(under ? { under } : {}) } as const;
  const atlas = useAsked('atlas', phone ? { query } : null, { keep: true });
  const compared = isCompared(asked);
  const hours = useLong('atlasHours', phone && !compared ? { query: { phone, at, of } } : null);
  const apart = useLong('atlasApart', phone && compared ? { query: { phone, at, of, ...withOf(asked) } } : null);
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
      {(atlas.wrong ?? apart.wrong) ? <Wrong>{atlas.wrong ?? apart.wrong}</Wrong> : null}
      {!phone ? <Empty>No extension has a phone yet: what phones can dial is shown here once one has.</Empty> : null}
      <Box aria-busy={atlas.waiting || apart.waiting} minH="420px">
        {compared ? (
          <>
            <LongWait asked={apart} doing="Both atlases are being laid over one another." />
            {apart.value ? <ApartTable value={apart.value} /> : null}
          </>
        ) : value ? (
          <>
            <Crumbs asked={asked} />
            <PartitionBars value={value} pathTo={(digits) => pathOf({ ...asked, under: digits })} under={under} />
            {under === '' ? <LongWait asked={hours} doing="The week is being looked through." /> : null}
            {hours.value && under === '' ? (
              <HoursBar hours={hours.value} pathAt={(moment) => pathOf({ ...asked, at: moment })} />
            ) : null}
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
              of={of}
              under={under}
              shown={shownIn(value, only)}
              mayEdit={mayEdit && of === 'draft'}
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

/** What it is held against, as a question. */
const withOf = ({ withPhone, withAt, withOf: plan }: Asked) => ({
  ...(withPhone ? { withPhone } : {}),
  ...(withAt ? { withAt } : {}),
  ...(plan ? { withOf: plan } : {}),
});

function AskedFor({ asked }: { asked: Asked }) {
  const router = useRouter();
  const compared = isCompared(asked);
  const [comparing, setComparing] = useState(compared);
  const { withPhone, withAt } = asked;
  const form = useForm({
    values: { phone: asked.phone, at: asked.at, withPhone: withPhone ?? '', withAt: withAt ?? '' },
  });
  const { field, text } = formFields(form, { prefix: 'atlas' });
  const go = (more: Partial<Asked>) => {
    const { phone, at, ...held } = form.getValues();
    const against = comparing ? { withPhone: held.withPhone.trim() || null, withAt: held.withAt.trim() || null } : {};
    router.push(pathOf({ ...asked, phone: phone.trim(), at: at.trim() || 'now', ...against, ...more }));
  };
  const apart = (e: FormEvent) => {
    e.preventDefault();
    go({});
  };
  const alone = () => {
    setComparing(false);
    go({ withPhone: null, withAt: null, withOf: null });
  };
  const phoneBox = (name: 'phone' | 'withPhone', title: string) => (
    <Box flex="1" minW="130px" maxW="230px">
      {field(name, title, ({ change, ...rest }) => (
        <PhoneBox {...rest} onChange={change} />
      ))}
    </Box>
  );
  return (
    <chakra.form mb="14px" onSubmit={apart}>
      <Flex gap="10px" align="flex-end" wrap="wrap">
        {phoneBox('phone', 'Phone')}
        <Box w="150px">{text('at', 'When')}</Box>
        <PlanChoice of={asked.of} onChoose={(of) => go({ of })} label="In which plan" />
        <Act look="main" type="submit" h="32px">
          Show
        </Act>
        {comparing ? null : <Act onClick={() => setComparing(true)}>Compare…</Act>}
      </Flex>
      {comparing ? (
        <Flex gap="10px" align="flex-end" wrap="wrap" mt="10px">
          {phoneBox('withPhone', 'With phone')}
          <Box w="150px">{text('withAt', 'At the time')}</Box>
          <PlanChoice
            of={asked.withOf ?? ''}
            none="with the same plan"
            before="with "
            onChoose={(of) => go({ withOf: of || null })}
            label="With which plan"
          />
          <Act type="submit" h="32px">
            Compare
          </Act>
          <Act onClick={alone}>One phone only</Act>
        </Flex>
      ) : null}
    </chakra.form>
  );
}
