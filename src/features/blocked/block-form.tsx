'use client';

import { Box, Flex } from '@chakra-ui/react';
import { useWatch } from 'react-hook-form';
import { Act, SelectBox, TextBox, Wrong } from '@/ui/controls';
import { DayBox } from '@/ui/day-box';
import { formFields } from '@/workbench/form-fields';
import type { Option } from '@/workbench/form-data';
import { FoundPicker } from '@/workbench/found-picker';
import { useActForm } from '@/workbench/use-act-form';

interface Values {
  who: 'number' | 'withheld';
  calling: string;
  site: string;
  until: string;
  leadsTo: string;
  reason: string;
}

/** Blocks one caller at once: a number, or whoever hides it; for all or for one site, with an end where one is wanted. */
export function BlockForm({
  account,
  sites,
  calling,
  onDone,
}: {
  account: string;
  sites: Option[];
  calling: string | null;
  onDone: (made: boolean) => void;
}) {
  const { form, submit, busy, general, clear } = useActForm<'block', Values>({
    operation: 'block',
    defaults: {
      who: calling === 'withheld' ? 'withheld' : 'number',
      calling: calling === 'withheld' ? '' : (calling ?? ''),
      site: '',
      until: '',
      leadsTo: '',
      reason: '',
    },
    input: (v) => ({
      body: {
        site: v.site || null,
        calling: v.who === 'withheld' ? null : v.calling,
        until: v.until || null,
        leadsTo: v.leadsTo || null,
        reason: v.reason,
      },
    }),
    unsaid: (v) =>
      v.who === 'number' && v.calling.trim() === ''
        ? [{ field: 'calling', sentence: 'Say which number, as people write it.' }]
        : [],
    keep: { key: `${account} blocked caller`, about: null },
    onMade: () => {
      clear();
      onDone(true);
    },
  });
  const who = useWatch({ control: form.control, name: 'who' });
  const { field, text } = formFields(form, { prefix: 'block' });
  return (
    <Box
      as="form"
      role="form"
      aria-label="Block a caller"
      border="1px dashed"
      borderColor="plum"
      rounded="4px"
      p="12px"
      mb="14px"
      onSubmit={(e) => void submit(e)}
    >
      <Flex gap="12px" wrap="wrap" align="flex-start">
        <Box w="170px">
          {field('who', 'Who', ({ change, ...rest }) => (
            <SelectBox {...rest} onChange={(e) => change(e.target.value as Values['who'])}>
              <option value="number">a number</option>
              <option value="withheld">whoever hides the number</option>
            </SelectBox>
          ))}
        </Box>
        {who === 'number' ? (
          <Box w="190px">
            {field('calling', 'Number', ({ change, ...rest }) => (
              <TextBox
                {...rest}
                autoFocus
                inputMode="tel"
                autoComplete="off"
                onChange={(e) => change(e.target.value)}
              />
            ))}
          </Box>
        ) : null}
        <Box w="150px">
          {field('site', 'For', ({ change, ...rest }) => (
            <SelectBox {...rest} onChange={(e) => change(e.target.value)}>
              <option value="">all sites</option>
              {sites.map((s) => (
                <option key={s.id} value={s.id}>
                  {s.label}
                </option>
              ))}
            </SelectBox>
          ))}
        </Box>
        <Box w="180px">
          {field('until', 'Last day, if any', ({ change, ...rest }) => (
            <DayBox {...rest} onChange={change} />
          ))}
        </Box>
        <Box flex="1 1 200px" maxW="280px">
          {field('leadsTo', 'They go to', ({ change, value, ref: _ref, name: _name, onBlur: _blur, ...rest }) => (
            <FoundPicker
              {...rest}
              target="destination"
              value={value}
              onChange={change}
              placeholder="as the plan says"
            />
          ))}
        </Box>
        <Box flex="1 1 140px" maxW="240px">
          {text('reason', 'Why, for colleagues')}
        </Box>
        <Flex gap="8px" pt="19px">
          <Act look="main" type="submit" disabled={busy}>
            {busy ? 'Blocking …' : 'Block'}
          </Act>
          <Act
            onClick={() => {
              clear();
              onDone(false);
            }}
          >
            Cancel
          </Act>
        </Flex>
      </Flex>
      {general ? (
        <Box mt="8px">
          <Wrong>{general}</Wrong>
        </Box>
      ) : null}
    </Box>
  );
}
