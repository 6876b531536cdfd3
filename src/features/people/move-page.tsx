'use client';

import { Box, Flex } from '@chakra-ui/react';
import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import type { BulkLine } from '@/core/acts/bulk';
import type { MoveProposal } from '@/core/acts/people';
import type { Input } from '@/contract';
import { call } from '@/workbench/api';
import { Act, Labelled, PartTitle, SelectBox, TextBox, Wrong } from '@/ui/controls';
import { Workspace } from '@/ui/workspace';
import { NotYours } from '@/workbench/not-yours';
import type { Option } from '@/workbench/form-data';
import { ChangeLines } from '@/workbench/change-lines';
import { useRefresh } from '@/ui/refresh';

/** Somebody moves to another site: digits, number and mailbox go along, and what will be otherwise there is told. */
export function MovePage({
  id,
  name,
  from,
  sites,
  canEdit,
}: {
  id: string;
  name: string;
  from: string;
  sites: Option[];
  canEdit: boolean;
}) {
  const router = useRouter();
  const refresh = useRefresh();
  const [site, setSite] = useState('');
  const [proposal, setProposal] = useState<MoveProposal | null>(null);
  const [digits, setDigits] = useState<Record<string, string>>({});
  const [number, setNumber] = useState('keep');
  const [lines, setLines] = useState<BulkLine[] | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const body = { site, digits, number: number === 'keep' || number === 'free' ? number : { take: number } };
  const key = JSON.stringify(body);
  useEffect(() => {
    if (!site) return;
    let over = false;
    void call('movePreview', { params: { id }, body: JSON.parse(key) as Input<'movePreview'>['body'] }).then((got) => {
      if (over) return;
      setLines(got.ok ? got.value.lines : null);
      setWrong(got.ok ? null : got.errors[0]!.sentence);
    });
    return () => {
      over = true;
    };
  }, [id, site, key]);
  const choose = async (to: string) => {
    const got = await call('moveProposal', { params: { id }, query: { site: to } });
    if (!got.ok) return setWrong(got.errors[0]!.sentence);
    setSite(to);
    setProposal(got.value);
    setDigits(Object.fromEntries(got.value.digits.flatMap((d) => (d.free[0] ? [[d.extension, d.free[0]]] : []))));
    setNumber(
      got.value.numbers.length === 0 ? 'keep' : got.value.freeNumbers[0] ? got.value.freeNumbers[0].id : 'keep',
    );
  };
  const move = async () => {
    const done = await call('move', { params: { id }, body: body as Input<'move'>['body'] });
    if (!done.ok) return setWrong(done.errors[0]!.sentence);
    router.push(`/people/${id}`);
    refresh();
  };
  if (!canEdit) return <NotYours title={`${name} moves`} />;
  return (
    <Workspace title={`${name} moves`} lead={`Works at ${from} now. One edit of the draft, undone as one.`}>
      <Box maxW="760px">
        <Box maxW="300px" mb="16px">
          <Labelled title="To" htmlFor="move-site">
            <SelectBox id="move-site" autoFocus value={site} onChange={(e) => void choose(e.target.value)}>
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
                    <TextBox
                      id={`move-${d.extension}`}
                      w="110px"
                      fontFamily="mono"
                      value={digits[d.extension] ?? d.now}
                      onChange={(e) => setDigits({ ...digits, [d.extension]: e.target.value })}
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
                <SelectBox id="move-number" value={number} onChange={(e) => setNumber(e.target.value)}>
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
          <Act look="main" disabled={!site || !lines || lines.length === 0} onClick={move}>
            Move {name}
          </Act>
          <Act onClick={() => router.push(`/people/${id}`)}>Back</Act>
        </Flex>
      </Box>
    </Workspace>
  );
}
