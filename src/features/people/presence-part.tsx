'use client';

import { Box, Grid, chakra } from '@chakra-ui/react';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { v7 as uuid } from 'uuid';
import { PRESENCE_ACTS } from '@/core/plan/facts/presence-acts';
import { call } from '@/workbench/api';
import { Act, SelectBox } from '@/ui/controls';
import type { Option } from '@/workbench/form-data';
import { RefPicker } from '@/workbench/ref-picker';

interface Acts {
  internal: string;
  internalTo: string | null;
  outside: string;
  outsideTo: string | null;
}

/** One presence state: what the organisation says of it, and the extension's own rule where there is one. */
export interface PresenceLine {
  rule: string;
  name: string;
  usual: Acts;
  own: (Acts & { id: string; rowVersion: number }) | null;
}

const WORDS: Record<string, string> = {
  ring: 'ring',
  mailbox: 'go to the mailbox',
  busy: 'hear busy',
  forward: 'go to …',
};

/** Forwarding by presence state, inside and outside callers apart; the organisation's rule holds where no own one is set. */
export function PresencePart({
  extension,
  lines,
  destinations,
  search,
  may,
}: {
  extension: string;
  lines: PresenceLine[];
  destinations: Option[];
  search: boolean;
  may: boolean;
}) {
  return (
    <Grid templateColumns="120px 1fr 1fr 90px" gap="8px" alignItems="start" fontSize="13px">
      <Head>State</Head>
      <Head>Calls from inside</Head>
      <Head>Calls from outside</Head>
      <span />
      {lines.map((l) => (
        <PresenceRow
          key={`${l.rule} ${l.own?.rowVersion ?? 0}`}
          extension={extension}
          line={l}
          destinations={destinations}
          search={search}
          may={may}
        />
      ))}
    </Grid>
  );
}

const Head = ({ children }: { children: React.ReactNode }) => (
  <chakra.span fontSize="12px" color="quiet">
    {children}
  </chakra.span>
);

const said = (act: string, to: string | null) => (act === 'forward' ? `go to ${to ?? '?'}` : WORDS[act]);

function PresenceRow({
  extension,
  line,
  destinations,
  search,
  may,
}: {
  extension: string;
  line: PresenceLine;
  destinations: Option[];
  search: boolean;
  may: boolean;
}) {
  const router = useRouter();
  const [typed, setTyped] = useState<Acts>(
    line.own ?? { internal: line.usual.internal, internalTo: null, outside: line.usual.outside, outsideTo: null },
  );
  const [open, setOpen] = useState(line.own !== null);
  const [wrong, setWrong] = useState<string | null>(null);
  const save = async (value: Acts | null) => {
    const id = line.own?.id ?? uuid();
    const { internal, internalTo, outside, outsideTo } = value ?? typed;
    const made = await call('edit', {
      body: {
        edits: [
          {
            kind: 'presenceChoice',
            id,
            rowVersion: line.own?.rowVersion ?? null,
            value: value && {
              id,
              extension,
              rule: line.rule,
              internal,
              internalTo: internal === 'forward' ? internalTo : null,
              outside,
              outsideTo: outside === 'forward' ? outsideTo : null,
            },
          },
        ],
      },
    });
    setWrong(made.ok ? null : made.errors[0]!.sentence.replace(/^(internalTo|outsideTo)/, 'The place'));
    if (made.ok) router.refresh();
  };
  const change = (next: Partial<Acts>) => {
    const value = { ...typed, ...next };
    setTyped(value);
    const whole =
      (value.internal !== 'forward' || value.internalTo) && (value.outside !== 'forward' || value.outsideTo);
    if (whole) void save(value);
  };
  const cell = (whose: 'internal' | 'outside') =>
    open ? (
      <Box>
        <SelectBox
          aria-label={`${line.name}, ${whose} calls`}
          disabled={!may}
          value={typed[whose]}
          onChange={(e) => change({ [whose]: e.target.value })}
        >
          {PRESENCE_ACTS.map((a) => (
            <option key={a} value={a}>
              {WORDS[a]}
            </option>
          ))}
        </SelectBox>
        {typed[whose] === 'forward' ? (
          <Box mt="4px">
            <RefPicker
              aria-label={`${line.name}, ${whose} calls go to`}
              value={typed[`${whose}To`]}
              options={destinations}
              search={search ? 'destination' : undefined}
              nullable={false}
              placeholder="where to"
              onChange={(to) => change({ [`${whose}To`]: to })}
            />
          </Box>
        ) : null}
      </Box>
    ) : (
      <chakra.span color="quiet" lineHeight="32px">
        {said(line.usual[whose], line.usual[`${whose}To`])}
      </chakra.span>
    );
  return (
    <>
      <chakra.span lineHeight="32px">
        {line.name}
        {wrong ? (
          <Box role="alert" color="brick">
            {wrong}
          </Box>
        ) : null}
      </chakra.span>
      {cell('internal')}
      {cell('outside')}
      {may ? (
        open ? (
          <Act
            onClick={() => {
              setOpen(false);
              if (line.own) void save(null);
            }}
          >
            As usual
          </Act>
        ) : (
          <Act onClick={() => setOpen(true)}>Own rule</Act>
        )
      ) : (
        <span />
      )}
    </>
  );
}
