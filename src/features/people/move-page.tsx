'use client';

import { Box, Flex } from '@chakra-ui/react';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useWatch } from 'react-hook-form';
import type { Input } from '@/contract';
import { Act, Labelled, PartTitle, SelectBox, Wrong } from '@/ui/controls';
import { DigitsBox } from '@/ui/digits-box';
import { Workspace } from '@/ui/workspace';
import { NotYours } from '@/workbench/not-yours';
import type { Option } from '@/workbench/form-data';
import { ChangeLines } from '@/workbench/change-lines';
import { useSettled } from '@/ui/settled';
import { useActForm } from '@/workbench/use-act-form';
import { useAsked } from '@/workbench/use-asked';
import { useRefresh } from '@/ui/refresh';

interface Typed {
  site: string;
  digits: Record<string, string>;
  /** `keep`, `free`, or the id of a free number */
  number: string;
}

const bodyOf = ({ site, digits, number }: Typed) => ({
  site,
  digits,
  number: number === 'keep' || number === 'free' ? (number as 'keep' | 'free') : { take: number },
});

const PAUSE_MS = 250;

/** Somebody moves to another site: digits, number and mailbox go along, and what will be otherwise there is told. */
export function MovePage({
  id,
  account,
  name,
  from,
  sites,
  canEdit,
}: {
  id: string;
  account: string;
  name: string;
  from: string;
  sites: Option[];
  canEdit: boolean;
}) {
  const router = useRouter();
  const refresh = useRefresh();
  const [chosen, setChosen] = useState('');
  const asked = useAsked('moveProposal', chosen ? { params: { id }, query: { site: chosen } } : null);
  const proposal = asked.value;
  const { form, submit, busy, general } = useActForm<'move', Typed>({
    operation: 'move',
    defaults: {
      site: '',
      digits: Object.fromEntries(
        (proposal?.digits ?? []).flatMap((d) => (d.free[0] ? [[d.extension, d.free[0]]] : [])),
      ),
      number: (proposal && proposal.numbers.length > 0 && proposal.freeNumbers[0]?.id) || 'keep',
    },
    input: (t) => ({ params: { id }, body: bodyOf(t) }),
    fieldOf: (path) => (path.startsWith('digits') ? 'digits' : path === 'site' || path === 'number' ? path : null),
    keep: { key: `${account} move ${id}`, about: { title: `${name} moves`, path: `/people/${id}/move` } },
    onMade: () => {
      router.push(`/people/${id}`);
      refresh();
    },
  });
  const typed = useWatch({ control: form.control }) as Typed;
  const { site, digits, number } = typed;
  // What was kept of an earlier visit asks for its proposal again.
  if (site !== chosen) setChosen(site);
  const key = useSettled(JSON.stringify(bodyOf(typed)), PAUSE_MS);
  const preview = useAsked(
    'movePreview',
    site && proposal ? { params: { id }, body: JSON.parse(key) as Input<'movePreview'>['body'] } : null,
    { keep: true },
  );
  const lines = preview.value?.lines ?? null;
  const wrong = asked.wrong ?? preview.wrong ?? general;
  const choose = (to: string) => {
    for (const f of ['digits', 'number'] as const) form.resetField(f);
    form.setValue('site', to, { shouldDirty: true });
  };
  const setDigits = (next: Typed['digits']) => form.setValue('digits', next, { shouldDirty: true });
  if (!canEdit) return <NotYours title={`${name} moves`} />;
  return (
    <Workspace title={`${name} moves`} lead={`Works at ${from} now. One edit of the draft, undone as one.`}>
      <Box maxW="760px">
        <Box maxW="300px" mb="16px">
          <Labelled title="To" htmlFor="move-site">
            <SelectBox id="move-site" autoFocus value={site} onChange={(e) => choose(e.target.value)}>
              <option value="">choose the site</option>
              {sites.map((s) => (
                <option key={s.id} value={s.id}>
                  {s.label}
                </option>
              ))}
            </SelectBox>
          </Labelled>
        </Box>
        {proposal ? (
          <>
            {proposal.digits.map((d) => (
              <Box key={d.extension} mb="12px">
                <Labelled title={`Digits, ${d.now} now`} htmlFor={`move-${d.extension}`}>
                  <Flex gap="6px" align="center" wrap="wrap">
                    <DigitsBox
                      id={`move-${d.extension}`}
                      w="110px"
                      value={digits[d.extension] ?? d.now}
                      onChange={(next) => setDigits({ ...digits, [d.extension]: next })}
                    />
                    <Act onClick={() => setDigits({ ...digits, [d.extension]: d.now })}>Keep {d.now}</Act>
                    {d.free.slice(0, 5).map((f) => (
                      <Act
                        key={f}
                        fontFamily="mono"
                        aria-pressed={digits[d.extension] === f}
                        borderColor={digits[d.extension] === f ? 'plum' : 'line'}
                        onClick={() => setDigits({ ...digits, [d.extension]: f })}
                      >
                        {f}
                      </Act>
                    ))}
                  </Flex>
                </Labelled>
              </Box>
            ))}
            <Box maxW="300px" mb="16px">
              <Labelled
                title={`Own number${proposal.numbers.length > 0 ? `, ${proposal.numbers.map((n) => n.shown).join(', ')} now` : ''}`}
                htmlFor="move-number"
              >
                <SelectBox
                  id="move-number"
                  value={number}
                  onChange={(e) => form.setValue('number', e.target.value, { shouldDirty: true })}
                >
                  <option value="keep">{proposal.numbers.length > 0 ? 'stays theirs' : 'none'}</option>
                  {proposal.numbers.length > 0 ? <option value="free">is free again</option> : null}
                  {proposal.freeNumbers.map((n) => (
                    <option key={n.id} value={n.id}>
                      {n.shown}
                    </option>
                  ))}
                </SelectBox>
              </Labelled>
            </Box>
            {proposal.differs.length > 0 ? (
              <Box mb="16px">
                <PartTitle>Otherwise there</PartTitle>
                {proposal.differs.map((d) => (
                  <Box key={d} mb="3px">
                    {d}
                  </Box>
                ))}
              </Box>
            ) : null}
          </>
        ) : null}
        {wrong ? (
          <Box mb="12px">
            <Wrong>{wrong}</Wrong>
          </Box>
        ) : null}
        {site && lines ? <ChangeLines lines={lines} count={lines.length} /> : null}
        <Flex gap="8px" mt="16px">
          <Act look="main" disabled={busy || !site || !lines || lines.length === 0} onClick={() => void submit()}>
            Move {name}
          </Act>
          <Act onClick={() => router.push(`/people/${id}`)}>Back</Act>
        </Flex>
      </Box>
    </Workspace>
  );
}
