'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { useRouter } from 'next/navigation';
import { Suspense, lazy, useState } from 'react';
import { v7 as uuid } from 'uuid';
import { ATTENDANT_MODES, type AttendantKeyName, type AttendantMode } from '@/core/plan/facts/attendants';
import { Act, ActLink } from '@/ui/controls';
import { Link } from '@/ui/link';
import { say } from '@/ui/toasts';
import { useEdits, type ObjectEdit } from '@/workbench/edits';
import { NoticesHere, useNotice } from '@/workbench/notices-here';
import { ObjectPage } from '@/workbench/object-page';
import { rehearsalPath } from '@/workbench/paths';
import { CourseHere } from '@/workbench/course-here';
import { FALLS_BACK, MODE_TITLES, type AttendantData, newKey } from './data';
import { KeyPaths } from './key-paths';
import { ModeArea } from './mode-area';

/** Folded at first, and few attendants have it. */
const NamesOnKeys = lazy(() => import('./names-on-keys').then((m) => ({ default: m.NamesOnKeys })));

/** A caller from outside, of a range that is kept for fiction. */
const SOMEBODY = 'outside:+447700900999';

/** An attendant: its keypad as callers have it under their fingers, mode by mode, with every end that is no key. */
export function AttendantPage({ page }: { page: AttendantData }) {
  const { data } = page;
  const id = String(data.object.id);
  const [mode, setMode] = useState<AttendantMode>('open');
  const [name, setName] = useState<AttendantKeyName>('1');
  const notice = useNotice(
    { kind: 'attendant', id, label: data.label, zone: page.zone },
    data.account,
    data.rights.includes('actNow'),
  );
  return (
    <ObjectPage
      data={data}
      listPath="/attendants"
      acts={
        <>
          <ActLink
            href={rehearsalPath(page.numbers[0] ? SOMEBODY : '', page.numbers[0] ?? String(data.object.digits ?? ''))}
          >
            Play the caller
          </ActLink>
          {notice.act}
          {data.canEdit ? <Another page={page} /> : null}
        </>
      }
      top={(edit) => (
        <>
          {notice.panel}
          <NoticesHere id={id} />
          <Levels page={page} above={edit.value.above as string | null} />
          <Modes page={page} mode={mode} onMode={setMode} />
          <ModeArea page={page} edit={edit} mode={mode} name={name} onName={setName} />
          <KeyPaths id={id} name={data.label} />
          {spelt(page, edit) ? (
            <Suspense fallback={<Box h="30px" mt="10px" />}>
              <NamesOnKeys site={edit.value.directDialling === 'everyone' ? '' : String(data.object.site)} />
            </Suspense>
          ) : null}
          <Box mt="16px">
            <CourseHere around={data.around} kind="attendant" id={id} week={{ title: 'calls that come here' }} />
          </Box>
        </>
      )}
      parts={[
        { title: 'When it is open, closed, or on holiday', fields: ['hours'] },
        { title: 'How long it waits', fields: ['digitSeconds', 'chooseSeconds', 'tries'] },
        {
          title: 'What callers may dial while it speaks',
          fields: ['directDialling', 'directMap', 'dialByName', 'outsideDialling'],
          draw: (edit) => <Opens page={page} edit={edit} />,
        },
        { title: 'How it speaks, and what is shown', fields: ['language', 'shownName'] },
        {
          title: 'Name, site, digits, level and note',
          fields: ['name', 'site', 'digits', 'above', 'note'],
          rare: true,
        },
      ]}
    />
  );
}

/** Whether callers can spell names here. */
const spelt = (page: AttendantData, edit: ObjectEdit) =>
  edit.value.dialByName === true || page.keys.some((k) => k.value.does === 'ask name');

/** The level above, and those beneath. */
function Levels({ page, above }: { page: AttendantData; above: string | null }) {
  if (above === null && page.levels.length === 0) return null;
  const up = page.data.options.attendant?.find((o) => o.id === above);
  return (
    <Flex gap="14px" mb="8px" color="quiet" fontSize="13px" wrap="wrap">
      {up ? (
        <span>
          Level above:{' '}
          <Link href={`/attendants/${up.id}`} style={{ textDecoration: 'underline' }}>
            {up.label}
          </Link>
        </span>
      ) : null}
      {page.levels.length > 0 ? (
        <span>
          Beneath it:{' '}
          {page.levels.map((l, i) => (
            <span key={l.id}>
              {i > 0 ? ', ' : ''}
              <Link href={`/attendants/${l.id}`} style={{ textDecoration: 'underline' }}>
                {l.name}
              </Link>
            </span>
          ))}
        </span>
      ) : null}
    </Flex>
  );
}

/** The modes as layers: one stands on top. */
function Modes({
  page: { modes, hours },
  mode,
  onMode,
}: {
  page: AttendantData;
  mode: AttendantMode;
  onMode: (mode: AttendantMode) => void;
}) {
  const list = hours === null ? (['open', 'notice'] as const) : ATTENDANT_MODES;
  return (
    <Flex role="tablist" aria-label="Modes" gap="0" mb="10px" borderBottom="1px solid" borderColor="line" wrap="wrap">
      {list.map((m) => (
        <chakra.button
          key={m}
          type="button"
          role="tab"
          id={`mode-${m}`}
          aria-selected={m === mode}
          px="12px"
          py="6px"
          borderBottom="3px solid"
          borderColor={m === mode ? 'plum' : 'transparent'}
          textAlign="left"
          onClick={() => onMode(m)}
        >
          <chakra.span fontWeight={m === mode ? 700 : 400}>{MODE_TITLES[m]}</chakra.span>{' '}
          <chakra.span color="quiet" fontSize="13px">
            {modes[m].missing ? FALLS_BACK[m] : m === 'open' ? (hours ?? 'always') : ''}
          </chakra.span>
        </chakra.button>
      ))}
    </Flex>
  );
}

/** What dialling on to the outside opens, before it is allowed. */
function Opens({ page, edit }: { page: AttendantData; edit: ObjectEdit }) {
  const on = edit.value.outsideDialling === true;
  const way = page.opened;
  return (
    <Box fontSize="13px" color={on && way ? 'brick' : 'quiet'}>
      {way
        ? `${on ? 'Open' : 'It would open'}: any caller → ${way.entered} → ${way.rule} → ${way.out}, at your cost.`
        : 'No trunk grants transit: whoever dials on to the outside here is refused.'}
    </Box>
  );
}

/** Another attendant like this one, with its keys and greetings, and no digits of its own yet. */
function Another({ page: { data, keys } }: { page: AttendantData }) {
  const edits = useEdits();
  const router = useRouter();
  const [busy, setBusy] = useState(false);
  const make = async () => {
    setBusy(true);
    const id = uuid();
    const { name } = data.object as { name: string };
    const made = await edits.together(
      [
        {
          do: 'add',
          of: { kind: 'attendant', id },
          value: { ...data.object, id, digits: null, name: `${name}, copy`.slice(0, 80) },
        },
        ...keys.map(({ value: { mode, key, ...rest } }) => newKey(id, mode, key, { ...rest, attendant: id })),
      ].map((e) => ('value' in e ? { ...e, value: { ...e.value, id: e.of.id } } : e)) as Parameters<
        typeof edits.together
      >[0],
      `duplicated ${data.label}`,
    );
    setBusy(false);
    if (made.ok) router.push(`/attendants/${id}`);
    else say(made.errors[0]!.sentence);
  };
  return (
    <Act disabled={busy} onClick={() => void make()}>
      Duplicate
    </Act>
  );
}
