'use client';

import { Box, Flex } from '@chakra-ui/react';
import { Digits } from '@/ui/digits';
import { Link } from '@/ui/link';
import type { ObjectPageData } from '@/workbench/form-data';
import { ObjectPage } from '@/workbench/object-page';
import { PlacePicker } from '@/workbench/place-picker';
import { WeekStrip } from '@/workbench/week-strip';
import type { ObjectEdit } from '@/workbench/edits';
import { SetByHand, type SwitchNow } from './set-by-hand';

const ENDS = [
  { field: 'open', title: 'When open' },
  { field: 'closed', title: 'When closed' },
  { field: 'holiday', title: 'On holidays' },
] as const;

/** One time switch: how it stands, its week, where it leads. */
export function TimeSwitchPage({
  data,
  zone,
  codes,
  isLive,
  set,
}: {
  data: ObjectPageData;
  zone: string | null;
  codes: { id: string; digits: string; name: string }[];
  isLive: boolean;
  set: SwitchNow | null;
}) {
  const id = String(data.object.id);
  const end = (edit: ObjectEdit, field: (typeof ENDS)[number]['field'], title: string) => (
    <Flex key={field} gap="12px" align="flex-start" wrap={{ base: 'wrap', md: 'nowrap' }}>
      <Box w={{ base: '100%', md: '170px' }} flexShrink={0} lineHeight={{ base: '20px', md: '32px' }}>
        {title}
      </Box>
      <Box flex="1" minW={0} maxW="440px">
        <PlacePicker
          aria-label={title}
          data-field={field}
          value={edit.value[field] as string | null}
          nullable
          disabled={!data.canEdit}
          placeholder={field === 'holiday' ? 'as when closed' : 'released, cause 20'}
          options={data.options.destination ?? []}
          long={data.long.includes('destination')}
          site={data.object.site as string}
          onChange={(to) => edit.choose(field, to)}
        />
        {edit.errorOf(field) ? (
          <Box role="alert" color="brick" fontSize="13px">
            {edit.errorOf(field)}
          </Box>
        ) : null}
      </Box>
    </Flex>
  );
  return (
    <ObjectPage
      data={data}
      listPath="/time-switches"
      top={(edit) => (
        <>
          <SetByHand
            id={id}
            set={set}
            zone={zone}
            byHours={edit.value.hours !== null}
            may={data.rights.includes('actNow')}
            isLive={isLive}
          />
          <Box maxW="760px" mt="14px">
            <WeekStrip kind="timeSwitch" id={id} title="calls that come here" />
          </Box>
        </>
      )}
      parts={[
        {
          title: 'Where it leads',
          draw: (edit) => (
            <Flex direction="column" gap="10px">
              {ENDS.filter((e) => e.field !== 'holiday' || edit.value.hours !== null).map((e) =>
                end(edit, e.field, e.title),
              )}
            </Flex>
          ),
        },
        { title: 'What decides', fields: ['hours', 'fax'] },
        {
          title: 'Set from a phone',
          draw: () =>
            codes.length === 0 ? (
              <Box color="quiet">
                No code sets it yet.{' '}
                <Link href="/places/codes" style={{ textDecoration: 'underline' }}>
                  Service codes
                </Link>
              </Box>
            ) : (
              <Box>
                {codes.map((c) => (
                  <Flex key={c.id} gap="8px" minH="26px">
                    <Digits>{c.digits}</Digits>
                    <Link href={`/places/codes/${c.id}`}>{c.name}</Link>
                  </Flex>
                ))}
              </Box>
            ),
        },
        { title: 'Name, site, digits and note', fields: ['name', 'site', 'digits', 'note'], rare: true },
      ]}
    />
  );
}
