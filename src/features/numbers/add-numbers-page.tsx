'use client';

import { Box, Flex, Grid, chakra } from '@chakra-ui/react';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useWatch } from 'react-hook-form';
import type { Input } from '@/contract';
import { NUMBER_STATES } from '@/core/plan/facts/number-states';
import { Act, AreaBox, SelectBox, Wrong } from '@/ui/controls';
import { useSettled } from '@/ui/settled';
import { DayBox } from '@/ui/day-box';
import { PaneSection, Workspace } from '@/ui/workspace';
import { NotYours } from '@/workbench/not-yours';
import { choiceWords } from '@/core/plan/facts/choice-words';
import { formFields } from '@/workbench/form-fields';
import { useActForm } from '@/workbench/use-act-form';
import { useAsked } from '@/workbench/use-asked';
import type { Option } from '@/workbench/form-data';
import { useRefresh } from '@/ui/refresh';

interface Typed {
  text: string;
  site: string;
  trunk: string;
  state: (typeof NUMBER_STATES)[number];
  activeFrom: string;
}

const FIELDS: Record<keyof Typed, true> = { text: true, site: true, trunk: true, state: true, activeFrom: true };

const bodyOf = (t: Typed) => ({ ...t, trunk: t.trunk || null, activeFrom: t.activeFrom || null });

const READ_AFTER_MS = 150;

/** How all of some texts begin. */
function commonHead(texts: readonly string[]): string {
  const [first = ''] = texts;
  let n = first.length;
  for (const t of texts) while (!t.startsWith(first.slice(0, n))) n--;
  return first.slice(0, n);
}

/** Adds numbers: one, ranges, or a list pasted from the carrier's letter, read while it is typed. */
export function AddNumbersPage({
  sites,
  trunks,
  account,
  site,
  canEdit,
}: {
  canEdit: boolean;
  sites: Option[];
  trunks: (Option & { site: string })[];
  account: string;
  site: string;
}) {
  const router = useRouter();
  const refresh = useRefresh();
  const [chosen, setChosen] = useState(site);
  const { form, submit, busy, general } = useActForm<'addNumbers', Typed>({
    operation: 'addNumbers',
    defaults: {
      text: '',
      site,
      trunk: trunks.find((t) => t.site === chosen)?.id ?? '',
      state: 'active',
      activeFrom: '',
    },
    input: (t) => ({ body: bodyOf(t) }),
    // What is wrong with a line of the list stands beside that line.
    fieldOf: (path) => (path in FIELDS ? (path as keyof Typed) : null),
    keep: { key: `${account} add numbers`, about: { title: 'Numbers to add', path: '/numbers/add' } },
    onMade: (_made, typed) => {
      // What was added is shown, marked as new.
      const shown = commonHead(read.value?.fresh ?? []);
      router.push(`/numbers?site=${typed.site}${shown.length > 5 ? `&filter=${encodeURIComponent(shown)}` : ''}`);
      refresh();
    },
  });
  const { field, select } = formFields(form, { prefix: 'add' });
  const typed = useWatch({ control: form.control }) as Typed;
  const settled = useSettled(JSON.stringify(bodyOf(typed)), READ_AFTER_MS);
  const read = useAsked('readNumbers', { body: JSON.parse(settled) as Input<'readNumbers'>['body'] }, { keep: true });
  const entries = read.value?.entries ?? [];
  const wrong = general ?? read.wrong;
  const fresh = entries.reduce((n, e) => n + e.count - e.known, 0);
  const bad = entries.filter((e) => e.wrong);
  if (!canEdit) return <NotYours title="Add numbers" />;
  return (
    <Workspace
      title="Add numbers"
      lead="One a line, or with commas between; a range as first to last. Any spelling of the site’s country is read."
      pane={
        <PaneSection title="What can stand here">
          <Box fontFamily="mono" fontSize="12px" whiteSpace="pre-line" mb="8px">
            {'+46 31 390 0600 to 0649\n031-390 07 00\n01632 960200 – 960219\n+49 40 66969 300, +49 40 66969 310'}
          </Box>
          Numbers that are known already are left as they are. What you type is kept here until it is added.
        </PaneSection>
      }
    >
      <Box as="form" maxW="760px" onSubmit={(e) => void submit(e)}>
        <Grid templateColumns={{ base: '1fr', md: 'repeat(auto-fit, minmax(170px, 1fr))' }} gap="12px" mb="12px">
          {field('site', 'Site', ({ change, ...rest }) => (
            <SelectBox
              {...rest}
              onChange={(e) => {
                form.resetField('trunk');
                setChosen(e.target.value);
                change(e.target.value);
              }}
            >
              {sites.map((s) => (
                <option key={s.id} value={s.id}>
                  {s.label}
                </option>
              ))}
            </SelectBox>
          ))}
          {select('trunk', 'Trunk they come by', trunks, 'none yet')}
          {select(
            'state',
            'State',
            NUMBER_STATES.map((s) => ({ id: s, label: choiceWords(s) })),
          )}
          {field('activeFrom', 'Active from', ({ change, ...rest }) => (
            <DayBox {...rest} disabled={typed.state !== 'active'} onChange={change} />
          ))}
        </Grid>
        {field('text', 'Numbers', ({ change, ...rest }) => (
          <AreaBox {...rest} h="150px" fontFamily="mono" autoFocus onChange={(e) => change(e.target.value)} />
        ))}
        {wrong ? (
          <Box mt="10px">
            <Wrong>{wrong}</Wrong>
          </Box>
        ) : null}
        <Box my="12px" data-testid="read-numbers" maxH="260px" overflow="auto">
          {entries.map((e, i) => (
            <Flex
              key={i}
              gap="12px"
              minH="26px"
              align="center"
              fontSize="13px"
              borderBottom="1px solid"
              borderColor="line"
            >
              <chakra.span color="quiet" w="52px" flexShrink={0}>
                line {e.line}
              </chakra.span>
              {e.wrong ? (
                <chakra.span color="brick">{e.wrong}</chakra.span>
              ) : (
                <>
                  <chakra.span fontFamily="mono">
                    {e.first}
                    {e.last ? ` to ${e.last}` : ''}
                  </chakra.span>
                  <chakra.span color="quiet">
                    {e.count} {e.count === 1 ? 'number' : 'numbers'}
                    {e.known > 0 ? `, ${e.known} known already` : ''}
                  </chakra.span>
                </>
              )}
            </Flex>
          ))}
        </Box>
        <Act look="main" type="submit" disabled={busy || fresh === 0 || bad.length > 0}>
          {bad.length > 0
            ? `${bad.length} ${bad.length === 1 ? 'entry is' : 'entries are'} wrong`
            : `Add ${fresh} ${fresh === 1 ? 'number' : 'numbers'}`}
        </Act>
      </Box>
    </Workspace>
  );
}
