'use client';

import { Box, Flex, Grid } from '@chakra-ui/react';
import { useState } from 'react';
import type { BulkChange } from '@/core/acts/bulk';
import type { Answer } from '@/contract';
import type { FieldFacts } from '@/core/plan';
import { call } from './api';
import { Act, Labelled, PartTitle, SelectBox, TextBox, Wrong } from '@/ui/controls';
import { DayBox } from '@/ui/day-box';
import type { Chosen } from './paged-ledger';
import type { Option } from './form-data';
import { RefPicker } from './ref-picker';
import { choiceWords } from './choices';
import { ChangeLines } from './change-lines';
import { JobBar } from './job-bar';
import { useJob, whyNot } from './use-job';
import { useRefresh } from '@/ui/refresh';

/** What a bulk change may choose from. */
export interface BulkOptions {
  classes: Option[];
  teams: Option[];
  prompts: Option[];
  trunks: Option[];
  sites: Option[];
  facts: Record<'extension' | 'person' | 'mailbox' | 'number', FieldFacts[]>;
}

type Values = Record<string, unknown>;
const OWN = ['class', 'outgoingNumber', 'withholdNumber', 'ringSeconds'] as const;
const NUMBER = ['state', 'activeFrom', 'trunk', 'site'] as const;
const MAILBOX = [
  'on',
  'attachSound',
  'afterMail',
  'announceNumber',
  'announceTime',
  'mostMessages',
  'longestMessageSeconds',
  'greeting',
] as const;

/** Changes many at once: first every change is listed, then it is made as one edit. */
export function BulkPanel({
  ledger,
  chosen,
  options,
  onClose,
}: {
  ledger: 'person' | 'extension' | 'mailbox' | 'number';
  chosen: Chosen;
  options: BulkOptions;
  onClose: () => void;
}) {
  const refresh = useRefresh();
  const [values, setValues] = useState<Values>({});
  const [dryRun, setDryRun] = useState<Answer<'bulkPreview'> | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const [job, setJob] = useState<string | null>(null);
  const [said, setSaid] = useState<string | null>(null);
  const work = useJob<{ changed: number }>(job, (ended) => {
    setWrong(whyNot(ended));
    if (ended.state !== 'done') return;
    setSaid(`${ended.result?.changed ?? 0} changed, as one edit: one undo (Ctrl Z) takes all of it back.`);
    setDryRun(null);
    setValues({});
    refresh();
  });
  const running = work !== null && (work.state === 'waiting' || work.state === 'running');
  const set = (name: string, value: unknown) => {
    const next = { ...values };
    if (value === undefined) delete next[name];
    else next[name] = value;
    setValues(next);
    setDryRun(null);
    setSaid(null);
  };
  const body = () => ({
    of: { ledger, ids: chosen.ids, filter: chosen.ids ? '' : chosen.filter, facets: chosen.ids ? {} : chosen.facets },
    change: changeOf(values),
  });
  const look = async () => {
    const got = await call('bulkPreview', { body: body() });
    setWrong(got.ok ? null : got.errors[0]!.sentence);
    if (got.ok) setDryRun(got.value);
  };
  const make = async () => {
    const got = await call('bulk', { body: body() });
    if (got.ok) setJob(got.value.job);
    else setWrong(got.errors[0]!.sentence);
  };
  const field = (kind: keyof BulkOptions['facts'], name: string, key = name) => (
    <BulkField key={key} kind={kind} name={name} value={values[key]} options={options} onChange={(v) => set(key, v)} />
  );
  return (
    <Box border="1px dashed" borderColor="plum" rounded="4px" p="14px" mb="14px" role="form" aria-label="Edit many">
      <Flex align="baseline" mb="10px" gap="12px">
        <b>
          Edit {chosen.count} {chosen.count === 1 ? 'row' : 'rows'} at once
        </b>
        <Box color="quiet" fontSize="13px">
          Only what you set here changes. Every change is listed before it is made.
        </Box>
        <Act ml="auto" onClick={onClose}>
          Close
        </Act>
      </Flex>
      {ledger === 'number' ? (
        <>
          <PartTitle>Numbers</PartTitle>
          <Grid templateColumns="repeat(auto-fill, minmax(180px, 1fr))" gap="10px" mb="14px">
            {NUMBER.map((f) => field('number', f, `number.${f}`))}
          </Grid>
        </>
      ) : null}
      {ledger === 'mailbox' || ledger === 'number' ? null : (
        <>
          <PartTitle>Extension and person</PartTitle>
          <Grid templateColumns="repeat(auto-fill, minmax(180px, 1fr))" gap="10px" mb="14px">
            {OWN.map((f) => field('extension', f))}
            {field('person', 'language')}
            <TeamField
              title="Add to team"
              value={values.addTeam}
              options={options.teams}
              onChange={(v) => set('addTeam', v)}
            />
            <TeamField
              title="Take out of team"
              value={values.removeTeam}
              options={options.teams}
              onChange={(v) => set('removeTeam', v)}
            />
          </Grid>
        </>
      )}
      {ledger === 'number' ? null : (
        <>
          <PartTitle>Mailbox</PartTitle>
          <Grid templateColumns="repeat(auto-fill, minmax(180px, 1fr))" gap="10px" mb="14px">
            {MAILBOX.map((f) => field('mailbox', f, `mailbox.${f}`))}
          </Grid>
        </>
      )}
      {running || (job && !work) ? <JobBar job={work} what="Changing" /> : null}
      {wrong ? (
        <Box mb="10px">
          <Wrong>{wrong}</Wrong>
        </Box>
      ) : null}
      {said ? (
        <Box role="status" mb="10px" color="pine">
          {said}
        </Box>
      ) : null}
      {dryRun ? (
        <Box mb="10px">
          {dryRun.errors.map((e) => (
            <Wrong key={e.label}>
              {e.label}: {e.sentence}
            </Wrong>
          ))}
          <ChangeLines lines={dryRun.lines} count={dryRun.count} />
        </Box>
      ) : null}
      <Flex gap="8px">
        <Act look={dryRun ? 'plain' : 'main'} disabled={Object.keys(values).length === 0 || running} onClick={look}>
          List every change
        </Act>
        {dryRun && dryRun.count > 0 && dryRun.errors.length === 0 ? (
          <Act look="main" disabled={running} onClick={make}>
            Make these {dryRun.count} changes
          </Act>
        ) : null}
      </Flex>
    </Box>
  );
}

/** What was set as the change that the API takes. */
function changeOf(values: Values): BulkChange {
  const change: Record<string, unknown> = {};
  const parts: Record<string, Record<string, unknown>> = {};
  for (const [key, value] of Object.entries(values)) {
    if (key === 'addTeam') change.addTeams = [value];
    else if (key === 'removeTeam') change.removeTeams = [value];
    else if (key.includes('.')) {
      const [part, field] = key.split('.') as [string, string];
      (parts[part] ??= {})[field] = value;
    } else change[key] = value;
  }
  return { ...change, ...parts } as BulkChange;
}

const AS_IS = 'as it is';

function TeamField({
  title,
  value,
  options,
  onChange,
}: {
  title: string;
  value: unknown;
  options: Option[];
  onChange: (v: unknown) => void;
}) {
  return (
    <Labelled title={title} htmlFor={`bulk-${title}`}>
      <SelectBox
        id={`bulk-${title}`}
        value={String(value ?? '')}
        onChange={(e) => onChange(e.target.value || undefined)}
      >
        <option value="">none</option>
        {options.map((o) => (
          <option key={o.id} value={o.id}>
            {o.label}
          </option>
        ))}
      </SelectBox>
    </Labelled>
  );
}

/** Where what a field may refer to stands among the options. */
const LISTS = { class: 'classes', prompt: 'prompts', trunk: 'trunks', site: 'sites' } as const;

/** A field that stays as it is until something is set. */
function BulkField({
  kind,
  name,
  value,
  options,
  onChange,
}: {
  kind: keyof BulkOptions['facts'];
  name: string;
  value: unknown;
  options: BulkOptions;
  onChange: (v: unknown) => void;
}) {
  const fact = options.facts[kind].find((f) => f.field === name)!;
  const id = `bulk-${kind}-${name}`;
  const list = LISTS[fact.ref as keyof typeof LISTS] ? options[LISTS[fact.ref as keyof typeof LISTS]] : null;
  if (name === 'activeFrom')
    return (
      <Labelled title={fact.title} htmlFor={id}>
        <DayBox id={id} value={String(value ?? '')} onChange={(day) => onChange(day === '' ? undefined : day)} />
      </Labelled>
    );
  if (fact.ref === 'number')
    return (
      <Labelled title={fact.title} htmlFor={id}>
        <RefPicker
          id={id}
          value={(value as string | undefined) ?? null}
          options={[]}
          search="number"
          nullable
          placeholder={AS_IS}
          onChange={(v) => onChange(v ?? undefined)}
        />
      </Labelled>
    );
  const choices =
    fact.type === 'boolean'
      ? [
          ['true', 'yes'],
          ['false', 'no'],
        ]
      : fact.choices
        ? fact.choices.map((c) => [c, choiceWords(c)])
        : list?.map((o) => [o.id, o.label]);
  if (choices)
    return (
      <Labelled title={fact.title} htmlFor={id}>
        <SelectBox
          id={id}
          value={value === undefined ? '' : value === null ? 'null' : String(value)}
          onChange={(e) => {
            const text = e.target.value;
            if (text === '') onChange(undefined);
            else if (text === 'null') onChange(null);
            else onChange(fact.type === 'boolean' ? text === 'true' : text);
          }}
        >
          <option value="">{AS_IS}</option>
          {fact.nullable ? <option value="null">none</option> : null}
          {choices.map(([v, label]) => (
            <option key={v} value={v}>
              {label}
            </option>
          ))}
        </SelectBox>
      </Labelled>
    );
  return (
    <Labelled title={fact.title} htmlFor={id}>
      <TextBox
        id={id}
        placeholder={AS_IS}
        value={value === undefined ? '' : String(value)}
        inputMode={fact.type === 'number' ? 'numeric' : undefined}
        onChange={(e) => {
          const text = e.target.value;
          if (text === '') onChange(undefined);
          else onChange(fact.type === 'number' && /^[0-9]+$/.test(text) ? Number(text) : text);
        }}
      />
    </Labelled>
  );
}
