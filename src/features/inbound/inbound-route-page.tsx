'use client';

import { Box, Flex } from '@chakra-ui/react';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { v7 as uuid } from 'uuid';
import { Act } from '@/ui/controls';
import { say } from '@/ui/toasts';
import { AskHere } from '@/workbench/ask-here';
import { useEdits } from '@/workbench/edits';
import { NoticesHere, useNotice } from '@/workbench/notices-here';
import { ObjectPage } from '@/workbench/object-page';
import { CourseHere } from '@/workbench/course-here';
import { CallingCountries, CallingNumbers } from './callers';
import type { InboundRouteData } from './data';
import { ScriptPart } from './script-part';
import { TimeRules, ruleNames } from './time-rules';

/** An inbound route: its course and its week first; beneath them the time rules that make it, and which calls it takes. */
export function InboundRoutePage({ data, rules, ruleFields, choices, zone, site, dial }: InboundRouteData) {
  const { id } = data.object as { id: string };
  const notice = useNotice(
    { kind: 'inboundRoute', id, label: data.label, zone },
    data.account,
    data.rights.includes('actNow'),
  );
  const names = ruleNames(rules, choices.options.hours ?? []);
  return (
    <ObjectPage
      data={data}
      listPath="/inbound"
      acts={
        <>
          {notice.act}
          {data.canEdit ? <Another data={data} rules={rules} /> : null}
        </>
      }
      top={(edit) => (
        <>
          {notice.panel}
          <NoticesHere id={id} />
          {edit.value.enabled === false ? (
            <Flex
              gap="10px"
              align="center"
              border="1px solid"
              borderColor="fieldLine"
              rounded="4px"
              px="12px"
              py="7px"
              mb="10px"
              maxW="760px"
            >
              <Box flex="1">
                <b>Not in use.</b> Calls pass it by, as if it were not there.
              </Box>
              {data.canEdit ? <Act onClick={() => edit.choose('enabled', true)}>Use it again</Act> : null}
            </Flex>
          ) : null}
          <CourseHere
            around={data.around}
            kind="inboundRoute"
            id={id}
            week={{ ruleNames: rules.length > 0 ? names : undefined }}
          />
          {dial ? <AskHere dial={dial} /> : null}
        </>
      )}
      parts={[
        {
          title: 'Where its calls go, read top to bottom; the first that fits decides',
          draw: (edit) => (
            <TimeRules
              route={edit}
              data={{ id, name: data.label, site, rules, ruleFields, choices }}
              canEdit={data.canEdit}
            />
          ),
        },
        { title: 'Which calls it takes', fields: ['numbers', 'calledMap'] },
        {
          title: 'Only from some callers',
          fields: ['callingCountries', 'callingNumbers', 'callingMap', 'callingWithheld', 'trunk'],
          controls: {
            callingCountries: (edit, fact) => <CallingCountries edit={edit} fact={fact} disabled={!data.canEdit} />,
            callingNumbers: (edit, fact) => (
              <CallingNumbers edit={edit} fact={fact} site={site} disabled={!data.canEdit} />
            ),
          },
          rare: true,
        },
        { title: 'By the number that was dialled', fields: ['dialledExtension'], rare: true },
        {
          title: 'As a call script',
          draw: (edit) => <ScriptPart id={id} name={data.label} edit={edit} rules={rules} canEdit={data.canEdit} />,
        },
        { title: 'Name, use and note', fields: ['name', 'enabled', 'note'], rare: true },
      ]}
    />
  );
}

/** Another route like this one, right behind it, with the same time rules and no number yet: not in use until it has one. */
function Another({ data, rules }: Pick<InboundRouteData, 'data' | 'rules'>) {
  const edits = useEdits();
  const router = useRouter();
  const [busy, setBusy] = useState(false);
  const make = async () => {
    setBusy(true);
    const id = uuid();
    const value = data.object as unknown as { name: string; position: number };
    const made = await edits.together(
      [
        {
          do: 'add',
          of: { kind: 'inboundRoute', id },
          value: {
            ...value,
            id,
            name: `${value.name}, copy`.slice(0, 80),
            position: value.position + 0.5,
            enabled: false,
          },
        },
        ...rules.map((r) => {
          const rule = uuid();
          return {
            do: 'add' as const,
            of: { kind: 'routeRule' as const, id: rule },
            value: { ...r.value, id: rule, route: id },
          };
        }),
      ],
      `duplicated ${data.label}`,
    );
    setBusy(false);
    if (made.ok) router.push(`/inbound/${id}`);
    else say(made.errors[0]!.sentence);
  };
  return (
    <Act disabled={busy} onClick={() => void make()}>
      Duplicate
    </Act>
  );
}
