'use client';

import { Box, Flex, Grid } from '@chakra-ui/react';
import { usePathname } from 'next/navigation';
import { useState, type ReactNode } from 'react';
import { useWatch } from 'react-hook-form';
import type { Answer } from '@/contract';
import { Act, PartTitle, Wrong } from '@/ui/controls';
import { useRefresh } from '@/ui/refresh';
import { call } from './api';
import {
  bulkBody,
  bulkFact,
  bulkFieldOf,
  bulkParts,
  emptyBulk,
  type BulkFieldName,
  type BulkLedger,
  type BulkOptions,
  type BulkTyped,
} from './bulk-fields';
import { ChangeLines } from './change-lines';
import { useAccount } from './edits';
import { FactBox } from './fact-box';
import { formFields, type FormFields } from './form-fields';
import { JobBar } from './job-bar';
import type { Chosen } from './paged-ledger';
import { RefPicker } from './ref-picker';
import { useActForm } from './use-act-form';
import { useJob, whyNot } from './use-job';

const AS_IS = 'as it is';

/** Changes many at once: first every change is listed, then just these are made, as one edit. */
export function BulkPanel({
  ledger,
  chosen,
  options,
  onClose,
}: {
  ledger: BulkLedger;
  chosen: Chosen;
  options: BulkOptions;
  onClose: () => void;
}) {
  const refresh = useRefresh();
  const account = useAccount();
  const path = usePathname();
  // What was listed, and what it was listed for: anything set since makes it old.
  const [listed, setListed] = useState<{ body: string; answer: Answer<'bulkPreview'> } | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const [job, setJob] = useState<string | null>(null);
  const [made, setMade] = useState('');
  const [said, setSaid] = useState<string | null>(null);
  const bodyOf = (typed: BulkTyped) => bulkBody(ledger, chosen, options, typed);
  const { form, submit, busy, general, touched, clear } = useActForm<'bulkPreview', BulkTyped>({
    operation: 'bulkPreview',
    defaults: emptyBulk(options),
    input: (typed) => ({ body: bodyOf(typed) }),
    fieldOf: bulkFieldOf,
    keep: { key: `${account} bulk ${ledger}`, about: { title: `Edit many ${options.words}`, path } },
    looksOnly: true,
    onMade: (answer, typed) => {
      setSaid(null);
      setWrong(null);
      setListed({ body: JSON.stringify(bodyOf(typed)), answer });
    },
  });
  const typed = useWatch({ control: form.control }) as BulkTyped;
  const body = bodyOf(typed);
  const preview = listed?.body === JSON.stringify(body) ? listed.answer : null;
  const work = useJob<{ changed: number }>(job, (ended) => {
    setWrong(whyNot(ended));
    if (ended.state !== 'done') return;
    setSaid(`${ended.result?.changed ?? 0} changed, as one edit: one undo (Ctrl Z) takes all of it back.`);
    setListed(null);
    // What was set while it was made is another change.
    if (JSON.stringify(bodyOf(form.getValues())) === made) clear();
    refresh();
  });
  const running = job !== null && (!work || work.state === 'waiting' || work.state === 'running');
  const make = async () => {
    setWrong(null);
    const got = await call('bulk', { body });
    if (got.ok) {
      setMade(JSON.stringify(body));
      setJob(got.value.job);
    } else setWrong(got.errors[0]!.sentence);
  };
  const fields = formFields(form, { prefix: 'bulk' });
  return (
    <Box
      as="form"
      border="1px dashed"
      borderColor="plum"
      rounded="4px"
      p="14px"
      mb="14px"
      role="form"
      aria-label="Edit many"
      onSubmit={(e) => void submit(e)}
    >
      <Flex align="baseline" mb="10px" gap="12px">
        <b>
          Edit {chosen.count} {chosen.count === 1 ? 'row' : 'rows'} at once
        </b>
        <Box color="quiet" fontSize="13px">
          Only what you set here changes. Every change is listed before it is made.
        </Box>
        <Act
          ml="auto"
          onClick={() => {
            clear();
            onClose();
          }}
        >
          Close
        </Act>
      </Flex>
      {bulkParts(ledger, options).map((p) => (
        <Part key={p.title} title={p.title}>
          {p.fields.map((f) => (
            <BulkField key={f} name={f} fields={fields} options={options} />
          ))}
          {p.teams ? (
            <>
              <TeamField name="addTeam" title="Add to team" fields={fields} options={options} />
              <TeamField name="removeTeam" title="Take out of team" fields={fields} options={options} />
            </>
          ) : null}
        </Part>
      ))}
      {running ? <JobBar job={work} what="Changing" /> : null}
      {(wrong ?? general) ? (
        <Box mb="10px">
          <Wrong>{wrong ?? general}</Wrong>
        </Box>
      ) : null}
      {said ? (
        <Box role="status" mb="10px" color="pine">
          {said}
        </Box>
      ) : null}
      {preview ? (
        <Box mb="10px">
          {preview.errors.map((e) => (
            <Wrong key={e.label}>
              {e.label}: {e.sentence}
            </Wrong>
          ))}
          <ChangeLines lines={preview.lines} count={preview.count} />
        </Box>
      ) : null}
      <Flex gap="8px">
        <Act type="submit" look={preview ? 'plain' : 'main'} disabled={!touched || busy || running}>
          List every change
        </Act>
        {preview && preview.count > 0 && preview.errors.length === 0 ? (
          <Act look="main" disabled={running} onClick={() => void make()}>
            Make these {preview.count} changes
          </Act>
        ) : null}
      </Flex>
    </Box>
  );
}

const Part = ({ title, children }: { title: string; children: ReactNode }) => (
  <>
    <PartTitle>{title}</PartTitle>
    <Grid templateColumns="repeat(auto-fill, minmax(180px, 1fr))" gap="10px" mb="14px">
      {children}
    </Grid>
  </>
);

interface FieldOf {
  fields: FormFields<BulkTyped>;
  options: BulkOptions;
}

/** A field that stays as it is until something is set. */
function BulkField({ name, fields, options }: FieldOf & { name: BulkFieldName }) {
  const { fact, list, search, others } = bulkFact(options, name);
  return fields.field(name, fact.title ?? name, (control) => (
    <FactBox
      fact={fact}
      control={{ ...control, value: String(control.value ?? '') } as never}
      options={list}
      search={search}
      others={others}
      unsaid={AS_IS}
    />
  ));
}

function TeamField({ name, title, fields, options }: FieldOf & { name: 'addTeam' | 'removeTeam'; title: string }) {
  return fields.field(name, title, ({ value, change, ref: _ref, name: _name, onBlur: _onBlur, ...rest }) => (
    <RefPicker
      {...rest}
      value={value || null}
      options={options.options.team ?? []}
      nullable
      placeholder="none"
      onChange={(team) => change(team ?? '')}
    />
  ));
}
