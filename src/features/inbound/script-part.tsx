'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import { v7 as uuid } from 'uuid';
import type { ScriptReading } from '@/contract/scripts';
import { Act, Wrong } from '@/ui/controls';
import { FileAct, NotCarried } from '@/ui/file-act';
import { call, sendFile } from '@/workbench/api';
import { useEdits, type ObjectEdit, type Together } from '@/workbench/edits';
import { zoneWords } from '@/workbench/zone-words';
import type { RouteRulesData } from './data';

/** A route as a CPL script (RFC 3880): saved as a file with what could not be carried, or made anew from one. */
export function ScriptPart({
  id,
  name,
  edit,
  rules,
  canEdit,
}: {
  id: string;
  name: string;
  edit: ObjectEdit;
  rules: RouteRulesData['rules'];
  canEdit: boolean;
}) {
  const edits = useEdits();
  const [left, setLeft] = useState<string[] | null>(null);
  const [read, setRead] = useState<ScriptReading | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const save = async () => {
    const got = await call('routeScript', { params: { id } });
    setWrong(got.ok ? null : got.errors[0]!.sentence);
    if (!got.ok) return;
    setLeft(got.value.notCarried);
    const link = document.createElement('a');
    link.href = URL.createObjectURL(new Blob([got.value.text], { type: 'application/cpl+xml' }));
    link.download = `${name}.cpl`;
    link.click();
    URL.revokeObjectURL(link.href);
  };
  const choose = async (file: File) => {
    setRead(null);
    const got = await sendFile('readScript', { params: { id } }, file);
    setWrong(got.ok ? null : got.errors[0]!.sentence);
    if (got.ok) setRead(got.value);
  };
  const takeIn = async () => {
    if (!read) return;
    setBusy(true);
    const parts: Together[] = rules.map((r) => ({
      do: 'remove',
      of: { kind: 'routeRule', id: r.value.id },
      base: { object: { ...r.value }, rowVersion: r.rowVersion },
    }));
    read.rules.forEach((r, i) => {
      const [hours, rule] = [uuid(), uuid()];
      const { weekly, exceptions } = r;
      parts.push(
        {
          do: 'add',
          of: { kind: 'hours', id: hours },
          value: { id: hours, name: `${name}, times for ${r.label}`.slice(0, 80), zone: read.zone, weekly, exceptions },
        },
        {
          do: 'add',
          of: { kind: 'routeRule', id: rule },
          value: { id: rule, route: id, position: (i + 1) * 10, hours, when: 'open', leadsTo: r.leadsTo },
        },
      );
    });
    const made = await edits.together(parts, `made the times of ${name} from a call script`);
    setBusy(false);
    setWrong(made.ok ? null : made.errors[0]!.sentence);
    if (!made.ok) return;
    if (read.otherwise && read.otherwise.leadsTo !== edit.value.leadsTo) edit.choose('leadsTo', read.otherwise.leadsTo);
    setRead(null);
  };
  return (
    <Box maxW="760px">
      <Flex gap="8px" align="center" wrap="wrap">
        <Act onClick={() => void save()}>Save as a script</Act>
        {canEdit ? (
          <FileAct label="Call script file" accept=".cpl,.xml,application/cpl+xml" onFile={(file) => void choose(file)}>
            Read a script…
          </FileAct>
        ) : null}
        <chakra.span color="quiet" fontSize="13px">
          Call Processing Language (RFC 3880)
        </chakra.span>
      </Flex>
      {wrong ? (
        <Box mt="8px">
          <Wrong>{wrong}</Wrong>
        </Box>
      ) : null}
      {left ? (
        <Box mt="8px" fontSize="13px" data-testid="script-left">
          {left.length === 0 ? 'Saved; everything of it could be carried.' : 'Saved. What a script can’t say:'}
          <NotCarried list={left} />
        </Box>
      ) : null}
      {read ? (
        <Box border="1px solid" borderColor="plum" rounded="4px" p="12px" mt="8px" data-testid="script-reading">
          <b>It would lead callers, by the clock of {zoneWords(read.zone)}:</b>
          {read.rules.map((r, i) => (
            <Box key={i}>
              {i + 1}. to {r.label}: {r.said}
            </Box>
          ))}
          <Box>
            {read.rules.length > 0 ? 'Otherwise' : 'Always'}{' '}
            {read.otherwise ? `to ${read.otherwise.label}` : 'as the route says now'}
          </Box>
          {read.notCarried.length > 0 ? (
            <Box mt="8px" fontSize="13px">
              Not taken over:
              <NotCarried list={read.notCarried} />
            </Box>
          ) : null}
          <Flex gap="8px" mt="10px">
            <Act look="main" disabled={busy} onClick={() => void takeIn()}>
              Put it in place of the time rules
            </Act>
            <Act onClick={() => setRead(null)}>Leave it</Act>
          </Flex>
        </Box>
      ) : null}
    </Box>
  );
}
