'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import type { Answer } from '@/contract';
import { callersWords } from '@/core/proof/call-words';
import { Act, ActLink, PartTitle, Wrong } from '@/ui/controls';
import { useRefresh } from '@/ui/refresh';
import { Workspace } from '@/ui/workspace';
import { sendFile } from '@/workbench/api';
import { GroupTable } from '@/workbench/call-groups';

type Told = Answer<'importPlan'>;
interface Chosen {
  name: string;
  text: string;
}

/** The whole plan as a text: saved for keeping beside other files, and taken in from one. */
export function PlanTextPage({ mayEdit }: { mayEdit: boolean }) {
  const refresh = useRefresh();
  const [chosen, setChosen] = useState<Chosen | null>(null);
  const [told, setTold] = useState<Told | null>(null);
  const [busy, setBusy] = useState(false);
  const [wrong, setWrong] = useState<string[]>([]);
  const send = async (file: Chosen, apply: number | null) => {
    setBusy(true);
    const done = await sent(file.text, apply);
    setBusy(false);
    setWrong(done.errors);
    setTold(done.told);
    if (apply !== null) refresh();
  };
  const choose = async (file: File | undefined) => {
    if (!file) return;
    const next = { name: file.name, text: await file.text() };
    setChosen(next);
    setTold(null);
    await send(next, null);
  };
  return (
    <Workspace
      title="Plan as text"
      lead="The whole plan as one file, always in the same order, so that two of them can be held against each other line by line."
    >
      <Box maxW="820px">
        <PartTitle>Save</PartTitle>
        <Flex gap="8px" wrap="wrap" mb="18px">
          {(['draft', 'live'] as const).flatMap((of) =>
            (['yaml', 'json'] as const).map((as) => (
              <ActLink key={`${of} ${as}`} href={`/api/v1/plan?of=${of}&as=${as}`} download={`plan-${of}.${as}`}>
                {`${of === 'draft' ? 'Draft' : 'Live'} as ${as.toUpperCase()}`}
              </ActLink>
            )),
          )}
        </Flex>
        {mayEdit ? (
          <>
            <PartTitle>Take in</PartTitle>
            <chakra.label htmlFor="plan-file" display="block" mb="6px" color="quiet">
              A plan file, YAML or JSON. What it would change is told before the draft is touched; passwords stay as
              they are.
            </chakra.label>
            <input
              id="plan-file"
              type="file"
              accept=".yaml,.yml,.json"
              onChange={(e) => void choose(e.target.files?.[0])}
            />
            <Box role="status" mt="10px" minH="22px" data-testid="plan-told">
              {busy ? `${chosen?.name ?? 'The file'} is being read, and every call asked.` : told ? saying(told) : ''}
            </Box>
            {wrong.map((w) => (
              <Wrong key={w}>{w}</Wrong>
            ))}
            {told && chosen && !told.applied && told.count > 0 ? (
              <>
                <Act look="main" mt="8px" disabled={busy} onClick={() => void send(chosen, told.draftVersion)}>
                  Take it into the draft
                </Act>
                <What told={told} />
              </>
            ) : null}
          </>
        ) : null}
      </Box>
    </Workspace>
  );
}

function saying({ count, groups, applied }: Told): string {
  const objects = `${count} ${count === 1 ? 'object' : 'objects'}`;
  if (applied) return `It is in the draft: ${objects} changed. Ctrl Z takes it back.`;
  if (count === 0) return 'It says what the draft says already.';
  if (groups === null)
    return `${objects} would differ: too many to ask every call here; the impact page does, once it is in the draft.`;
  if (groups.length === 0) return `${objects} would differ, and no call there can be would end otherwise.`;
  return `${objects} would differ, and ${groups.length} ${groups.length === 1 ? 'group of calls ends' : 'groups of calls end'} otherwise.`;
}

function What({ told: { edits, count, groups } }: { told: Told }) {
  return (
    <Box mt="14px">
      {groups && groups.length > 0 ? (
        <GroupTable titles={['Calls such as', 'How many', 'Ended', 'Would end']}>
          {groups.map((g, i) => (
            <chakra.tr key={i} borderTop="1px solid" borderColor="line">
              <chakra.td fontFamily="mono">{g.call}</chakra.td>
              <td>{callersWords(g)}</td>
              <td>{g.was}</td>
              <td>{g.willBe}</td>
            </chakra.tr>
          ))}
        </GroupTable>
      ) : null}
      <PartTitle>What differs</PartTitle>
      {edits.map((e) => (
        <Box key={`${e.kind} ${e.id}`} py="3px" borderTop="1px solid" borderColor="line">
          <b>{e.label}</b> <chakra.span color="quiet">{e.word}</chakra.span>{' '}
          {e.before === null ? 'new' : e.after === null ? 'deleted' : e.fields.map((f) => f.title).join(', ')}
        </Box>
      ))}
      {count > edits.length ? <Box color="quiet">and {count - edits.length} more</Box> : null}
    </Box>
  );
}

const MOST_ERRORS = 8;

/** Sends the file: to be looked at, or to be taken into the draft as it was looked at. */
async function sent(text: string, apply: number | null): Promise<{ told: Told | null; errors: string[] }> {
  const query = apply === null ? {} : { apply: 'true', draftVersion: apply };
  const done = await sendFile('importPlan', { query } as never, new Blob([text]));
  if (done.ok) return { told: done.value, errors: [] };
  const errors = done.errors.map((e) => (e.path ? `${e.path}: ${e.sentence}` : e.sentence));
  return { told: null, errors: errors.slice(0, MOST_ERRORS) };
}
