'use client';

import { Box, Flex } from '@chakra-ui/react';
import { X } from 'lucide-react';
import { Act, Labelled, SelectBox, TextBox } from '@/ui/controls';
import { DayBox } from '@/ui/day-box';
import { FoundPicker } from '@/workbench/found-picker';
import type { Option } from '@/workbench/form-data';
import type { Filter } from './use-filter';

export interface Choices {
  trunks: Option[];
  queues: Option[];
  sites: Option[];
}

interface Props {
  filter: Filter;
  put: (change: Filter) => void;
  choices: Choices;
  /** without what a page is not about */
  less?: readonly string[];
}

const WAYS: Option[] = [
  { id: 'in', label: 'from outside' },
  { id: 'out', label: 'to outside' },
  { id: 'inside', label: 'inside' },
];
const STATES: Option[] = [
  { id: 'answered', label: 'answered' },
  { id: 'missed', label: 'missed' },
  { id: 'failed', label: 'failed' },
];
const WEEKDAYS = ['Mondays', 'Tuesdays', 'Wednesdays', 'Thursdays', 'Fridays', 'Saturdays', 'Sundays'];

/** What is chosen by a bar of a chart, in words. */
const CHIPS: Record<string, (value: string) => string> = {
  hour: (v) => `from ${v.padStart(2, '0')}:00 to ${v.padStart(2, '0')}:59`,
  weekday: (v) => `on ${WEEKDAYS[Number(v)] ?? v}`,
  wait: () => 'of one waiting time',
  end: (v) => (v === 'none' ? 'that ended nowhere' : 'that ended outside by one trunk'),
};

/** Which calls are meant. What is typed acts when the hands rest; it stands in the address. */
export function Filters({ filter, put, choices, less = [] }: Props) {
  // What ends outside or nowhere is no place of the plan: it is chosen by a bar of a chart only.
  const isChip = (end: string | undefined) => end === 'none' || choices.trunks.some((t) => t.id === end);
  const select = (key: string, title: string, options: readonly Option[]) =>
    less.includes(key) || options.length === 0 ? null : (
      <Box w="128px">
        <Labelled title={title} htmlFor={`calls-${key}`}>
          <SelectBox id={`calls-${key}`} value={filter[key] ?? ''} onChange={(e) => put({ [key]: e.target.value })}>
            <option value="">any</option>
            {options.map((o) => (
              <option key={o.id} value={o.id}>
                {o.label}
              </option>
            ))}
          </SelectBox>
        </Labelled>
      </Box>
    );
  const day = (key: 'from' | 'to', title: string) => (
    <Box w="150px">
      <Labelled title={title} htmlFor={`calls-${key}`}>
        <DayBox id={`calls-${key}`} value={filter[key] ?? ''} onChange={(iso) => put({ [key]: iso })} />
      </Labelled>
    </Box>
  );
  const chips = Object.keys(CHIPS).filter((k) => filter[k] && (k !== 'end' || isChip(filter.end)));
  return (
    <Box mb="14px" data-testid="call-filters">
      <Flex gap="10px" wrap="wrap" align="flex-end">
        {day('from', 'From')}
        {day('to', 'To')}
        {less.includes('number') ? null : (
          <Box w="170px">
            <Labelled title="Number or extension" htmlFor="calls-number">
              <TextBox
                id="calls-number"
                value={filter.number ?? ''}
                maxLength={64}
                fontFamily="mono"
                onChange={(e) => put({ number: e.target.value })}
              />
            </Labelled>
          </Box>
        )}
        {less.includes('person') ? null : (
          <Box w="170px">
            <Labelled title="Person" htmlFor="calls-person">
              <FoundPicker
                id="calls-person"
                target="person"
                value={filter.person ?? ''}
                onChange={(person) => put({ person })}
              />
            </Labelled>
          </Box>
        )}
        {less.includes('end') || isChip(filter.end) ? null : (
          <Box w="170px">
            <Labelled title="Ended at" htmlFor="calls-end">
              <FoundPicker
                id="calls-end"
                target="destination"
                value={filter.end ?? ''}
                onChange={(end) => put({ end })}
              />
            </Labelled>
          </Box>
        )}
        {less.includes('cause') ? null : (
          <Box w="76px">
            <Labelled title="Q.850 cause" htmlFor="calls-cause">
              <TextBox
                id="calls-cause"
                inputMode="numeric"
                maxLength={3}
                value={filter.cause ?? ''}
                onChange={(e) => put({ cause: e.target.value })}
              />
            </Labelled>
          </Box>
        )}
        {select('way', 'Way', WAYS)}
        {select('state', 'What came of it', STATES)}
        {select('trunk', 'Trunk', choices.trunks)}
        {select('queue', 'Queue', choices.queues)}
        {select('site', 'Site', choices.sites)}
      </Flex>
      {chips.length > 0 ? (
        <Flex gap="8px" mt="8px" wrap="wrap">
          {chips.map((k) => (
            <Act key={k} h="26px" onClick={() => put({ [k]: '' })} aria-label={`Not only ${CHIPS[k]!(filter[k]!)}`}>
              {CHIPS[k]!(filter[k]!)} <X size={14} aria-hidden />
            </Act>
          ))}
        </Flex>
      ) : null}
    </Box>
  );
}
