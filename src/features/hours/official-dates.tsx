'use client';

import { Box, Flex, Grid, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import type { PublicHolidays } from '@/contract/holidays';
import { countryName } from '@/core/plan/facts/value-words';
import { Act, SelectBox, TickBox, Wrong } from '@/ui/controls';
import { useWriting } from '@/ui/time';
import { CountryBox } from '@/workbench/country-box';
import type { ObjectEdit } from '@/workbench/edits';
import { useAsked } from '@/workbench/use-asked';
import type { HolidayDate } from './holiday-dates';

type Official = PublicHolidays['dates'][number];

/** Whether a calendar says something of a date already, closed or not. */
const says = (dates: readonly HolidayDate[], { date }: Official) =>
  dates.some((d) => d.date === date || (d.yearly && d.date.slice(5) === date.slice(5)));

/** The country and region of a calendar, and which of their holidays it does not have yet: ticked, taken in with one press. */
export function OfficialDates({ edit, canEdit, today }: { edit: ObjectEdit; canEdit: boolean; today: string }) {
  const write = useWriting();
  const country = (edit.value.country as string | null) ?? '';
  const region = (edit.value.region as string | null) ?? '';
  const dates = edit.value.dates as HolidayDate[];
  const asked = useAsked('publicHolidays', country === '' ? null : { query: { country, region } }, { keep: true });
  const [left, setLeft] = useState<readonly string[]>([]);
  const [more, setMore] = useState<readonly string[]>([]);
  const official = asked.value?.dates ?? [];
  const coming = official.filter((d) => d.date >= today && !says(dates, d));
  const usual = coming.filter((d) => d.kind !== 'other');
  const others = coming.filter((d) => d.kind === 'other');
  const taken = [...usual.filter((d) => !left.includes(d.date)), ...others.filter((d) => more.includes(d.date))];
  const gone = dates.filter(
    (d) => d.closed && !d.yearly && d.date >= today && official.length > 0 && !official.some((o) => o.date === d.date),
  );
  const takeIn = () => {
    const added = taken.map(({ date, name }) => ({ date, name, yearly: false, closed: true }));
    // What was left out is kept as a day on which you work, so that it isn't proposed again.
    const out = usual
      .filter((d) => left.includes(d.date))
      .map(({ date, name }) => ({ date, name, yearly: false, closed: false }));
    edit.choose(
      'dates',
      [...dates, ...added, ...out].sort((a, b) => a.date.localeCompare(b.date)),
    );
    setLeft([]);
    setMore([]);
  };
  const line = (d: Official, ticked: boolean, onChange: (ticked: boolean) => void) => (
    <Flex as="label" key={d.date} gap="8px" align="center" minH="26px">
      <TickBox
        type="checkbox"
        checked={ticked}
        onChange={(e) => onChange(e.target.checked)}
        aria-label={`${d.name}, ${d.date}`}
      />
      <chakra.span color="quiet" w="110px" flexShrink={0}>
        {write(d.date, { dayOnly: true, zone: 'UTC' })}
      </chakra.span>
      <span>{d.name}</span>
    </Flex>
  );
  const flip = (list: readonly string[], date: string, put: (next: string[]) => void) =>
    put(list.includes(date) ? list.filter((x) => x !== date) : [...list, date]);
  return (
    <Box maxW="760px">
      <Flex gap="12px" wrap="wrap" mb="10px" align="flex-end">
        <Box w="240px">
          <chakra.label htmlFor="holidays-country" fontSize="12px" color="quiet">
            Country
          </chakra.label>
          <CountryBox
            id="holidays-country"
            value={country}
            disabled={!canEdit}
            placeholder="none: entered by hand"
            onChange={(c) => {
              edit.set('country', c);
              edit.set('region', null);
              void edit.commit();
            }}
          />
        </Box>
        {asked.value && asked.value.regions.length > 0 ? (
          <Box w="240px">
            <chakra.label htmlFor="holidays-region" fontSize="12px" color="quiet">
              Region
            </chakra.label>
            <SelectBox
              id="holidays-region"
              value={region}
              disabled={!canEdit}
              onChange={(e) => edit.choose('region', e.target.value || null)}
            >
              <option value="">the whole country</option>
              {asked.value.regions.map((r) => (
                <option key={r.id} value={r.id}>
                  {r.label}
                </option>
              ))}
            </SelectBox>
          </Box>
        ) : null}
        {country !== '' && canEdit ? (
          <Act
            onClick={() => {
              edit.set('country', null);
              edit.set('region', null);
              void edit.commit();
            }}
          >
            By hand only
          </Act>
        ) : null}
      </Flex>
      {asked.wrong ? <Wrong>{asked.wrong}</Wrong> : null}
      {country !== '' && asked.value && usual.length === 0 ? (
        <Box color="quiet">
          Every public holiday of {countryName(country)} to the end of {official.at(-1)?.date.slice(0, 4)} is in it.
        </Box>
      ) : null}
      {coming.length > 0 && canEdit ? (
        <Box border="1px solid" borderColor="line" rounded="4px" bg="raised" p="12px" data-testid="official-dates">
          {usual.length > 0 ? (
            <Box mb="6px">Not in this calendar yet, to the end of {official.at(-1)?.date.slice(0, 4)}:</Box>
          ) : null}
          <Grid templateColumns={{ base: '1fr', md: '1fr 1fr' }} columnGap="20px" maxH="264px" overflowY="auto">
            {usual.map((d) => line(d, !left.includes(d.date), () => flip(left, d.date, setLeft)))}
          </Grid>
          {others.length > 0 ? (
            <chakra.details mt="6px">
              <chakra.summary cursor="pointer" color="quiet">
                {others.length} days that are marked there without being public holidays
              </chakra.summary>
              <Grid templateColumns={{ base: '1fr', md: '1fr 1fr' }} columnGap="20px" maxH="200px" overflowY="auto">
                {others.map((d) => line(d, more.includes(d.date), () => flip(more, d.date, setMore)))}
              </Grid>
            </chakra.details>
          ) : null}
          <Act look="main" mt="10px" disabled={taken.length === 0 && left.length === 0} onClick={takeIn}>
            Take in {taken.length} {taken.length === 1 ? 'date' : 'dates'}
          </Act>
        </Box>
      ) : null}
      {gone.length > 0 ? (
        <Box color="quiet" fontSize="13px" mt="8px">
          Yours alone, not a holiday there: {gone.map((d) => `${d.name} (${d.date})`).join(', ')}.
        </Box>
      ) : null}
    </Box>
  );
}
