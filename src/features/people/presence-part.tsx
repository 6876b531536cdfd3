'use client';

import { Box, Grid, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import { v7 as uuid } from 'uuid';
import { PRESENCE_ACTS } from '@/core/plan/facts/presence-acts';
import { useEdits } from '@/workbench/edits';
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
          key={l.rule}
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
  const edits = useEdits();
  const [fresh] = useState(() => uuid());
  const id = line.own?.id ?? fresh;
  // What was just added or taken away here, until the page brings it.
  const [now, setNow] = useState<'added' | 'gone' | null>(null);
  const [brought, setBrought] = useState(line.own?.id);
  if (brought !== line.own?.id) {
    setBrought(line.own?.id);
    setNow(null);
  }
  const [wrong, setWrong] = useState<string | null>(null);
  const of = { kind: 'presenceChoice', id } as const;
  const first: Acts = {
    internal: line.usual.internal === 'forward' ? 'ring' : line.usual.internal,
    internalTo: null,
    outside: line.usual.outside === 'forward' ? 'ring' : line.usual.outside,
    outsideTo: null,
  };
  const rowVersion = line.own?.rowVersion ?? 0;
  const { internal, internalTo, outside, outsideTo } = line.own ?? first;
  const own = { internal, internalTo, outside, outsideTo };
  const edit = edits.of({
    kind: 'presenceChoice',
    object: { id, ...own },
    rowVersion,
    label: `Forwarding while ${line.name}`,
    titles: {
      internal: 'Calls from inside',
      outside: 'Calls from outside',
      internalTo: 'Where to',
      outsideTo: 'Where to',
    },
  });
  const open = now === null ? line.own !== null : now === 'added';
  const typed = edit.value as unknown as Acts;
  const put = async (next: 'added' | 'gone') => {
    setNow(next);
    const made = await edits.together(
      next === 'added'
        ? [{ do: 'add', of, value: { extension, rule: line.rule, ...first } }]
        : [{ do: 'remove', of, base: { object: own, rowVersion } }],
      next === 'added'
        ? `gave an extension its own forwarding while ${line.name}`
        : `set forwarding while ${line.name} back as usual`,
    );
    setWrong(made.ok ? null : made.errors[0]!.sentence);
    if (!made.ok) setNow(null);
  };
  const change = (whose: 'internal' | 'outside', change: Partial<Acts>) => {
    const value = { ...typed, ...change };
    // Where to is asked for first; a place is forgotten with the forwarding that needed it.
    if (value[whose] === 'forward' && !value[`${whose}To`]) return edit.set(whose, 'forward');
    edit.set(whose, value[whose]);
    edit.set(`${whose}To`, value[whose] === 'forward' ? value[`${whose}To`] : null);
    void edit.commit();
  };
  const cell = (whose: 'internal' | 'outside') =>
    open ? (
      <Box>
        <SelectBox
          aria-label={`${line.name}, ${whose} calls`}
          disabled={!may}
          value={typed[whose]}
          onChange={(e) => change(whose, { [whose]: e.target.value })}
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
              onChange={(to) => change(whose, { [`${whose}To`]: to })}
            />
          </Box>
        ) : null}
      </Box>
    ) : (
      <chakra.span color="quiet" lineHeight="32px">
        {said(line.usual[whose], line.usual[`${whose}To`])}
      </chakra.span>
    );
  const errors = [wrong, edit.general, ...['internal', 'internalTo', 'outside', 'outsideTo'].map(edit.errorOf)].filter(
    Boolean,
  );
  return (
    <>
      <chakra.span lineHeight="32px">
        {line.name}
        {errors.length > 0 ? (
          <Box role="alert" color="brick">
            {errors[0]}
          </Box>
        ) : null}
      </chakra.span>
      {cell('internal')}
      {cell('outside')}
      {may ? (
        open ? (
          <Act aria-label={`As usual while ${line.name}`} onClick={() => void put('gone')}>
            As usual
          </Act>
        ) : (
          <Act aria-label={`Own rule while ${line.name}`} onClick={() => void put('added')}>
            Own rule
          </Act>
        )
      ) : (
        <span />
      )}
    </>
  );
}
