'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { useEffect, useId, useRef, useState } from 'react';
import { secondsToSay } from '@/core/plan/facts/phrases';
import { languageName } from '@/core/plan/facts/value-words';
import { Act, AreaBox, Labelled, Wrong } from '@/ui/controls';
import { Glyph } from '@/ui/glyph';
import { useKinds } from '@/ui/kinds';
import { Link } from '@/ui/link';
import { useRefresh } from '@/ui/refresh';
import { call } from '@/workbench/api';
import { useEdits, type ObjectEdit } from '@/workbench/edits';
import { LanguageBox } from '@/workbench/language-box';
import { ObjectPage } from '@/workbench/object-page';
import { RefPicker } from '@/workbench/ref-picker';
import { SoundStrip } from '@/workbench/sound-strip';
import { PAUSE, type PromptData, type VersionShown } from './data';
import { SoundPart } from './sound-part';

/** One prompt: what is heard, in each language; its text; where it is used. */
export function PromptPage({ page }: { page: PromptData }) {
  const { data } = page;
  return (
    <ObjectPage
      data={data}
      listPath="/prompts"
      top={(edit) => <Versions page={page} edit={edit} />}
      parts={[
        { title: 'Where it is heard', draw: () => <Users page={page} /> },
        { title: 'Name, phrase and note', fields: ['name', 'phrase', 'note'], rare: true },
      ]}
    />
  );
}

const versionsOf = (edit: ObjectEdit) => (edit.value.versions ?? []) as VersionShown[];

/** The versions of a prompt by language, one on top: what is heard, and its text. */
function Versions({ page: { data, spoken }, edit }: { page: PromptData; edit: ObjectEdit }) {
  const edits = useEdits();
  const [at, setAt] = useState(0);
  const [wrong, setWrong] = useState<string | null>(null);
  const first = edit.value as unknown as VersionShown;
  const others = versionsOf(edit);
  const all = [first, ...others];
  const shown = Math.min(at, all.length - 1);
  const version = all[shown]!;
  const latest = useRef(edit);
  useEffect(() => {
    latest.current = edit;
  });
  /** Puts a sound to the version of a language, as everything else of the prompt stands by then: a sound takes its time. */
  const putSound = async (language: string, sound: { id: string; seconds: number } | null) => {
    const now = latest.current;
    const fields = { sound: sound?.id ?? null, seconds: sound?.seconds ?? 0 };
    setWrong(null);
    if (now.value.language !== language) {
      now.choose(
        'versions',
        versionsOf(now).map((v) => (v.language === language ? { ...v, ...fields } : v)),
      );
      return;
    }
    const made = await edits.together([
      {
        do: 'set',
        of: { kind: 'prompt', id: String(data.object.id) },
        base: { object: { ...now.value }, rowVersion: data.rowVersion },
        fields,
      },
    ]);
    if (!made.ok) setWrong(made.errors[0]!.sentence);
  };
  const add = (language: string) => {
    if (language === '' || all.some((v) => v.language === language)) return;
    edit.choose('versions', [...others, { language, text: '', seconds: 0, sound: null }]);
    setAt(all.length);
  };
  return (
    <Box maxW="760px">
      <Flex borderBottom="1px solid" borderColor="line" mb="12px" wrap="wrap" align="flex-end">
        <Flex role="tablist" aria-label="Languages" wrap="wrap">
          {all.map((v, i) => (
            <chakra.button
              key={v.language}
              type="button"
              role="tab"
              aria-selected={i === shown}
              px="12px"
              py="6px"
              borderBottom="3px solid"
              borderColor={i === shown ? 'plum' : 'transparent'}
              fontWeight={i === shown ? 700 : 400}
              onClick={() => setAt(i)}
            >
              {languageName(v.language)}
              {v.sound ? null : (
                <chakra.span color="saffronText" fontSize="12px" ml="6px">
                  text only
                </chakra.span>
              )}
            </chakra.button>
          ))}
        </Flex>
        {data.canEdit ? (
          <Box ml="auto" w="200px" pb="4px">
            <LanguageBox
              id="new-version"
              aria-label="Another language"
              value=""
              placeholder="another language …"
              onChange={add}
            />
          </Box>
        ) : null}
      </Flex>
      {version.sound ? (
        <Box border="1px solid" borderColor="line" rounded="4px" bg="raised" p="12px" mb="10px">
          <SoundStrip key={version.sound} sound={version.sound} name={data.label} seconds={version.seconds} />
        </Box>
      ) : null}
      <VersionText
        key={`text ${version.language}`}
        edit={edit}
        at={shown}
        canEdit={data.canEdit}
        spoken={shown === 0 ? spoken : []}
      />
      <Box mt="10px">
        <SoundPart
          key={`sound ${version.language}`}
          name={data.label}
          version={version}
          phrase={Boolean(edit.value.phrase)}
          canEdit={data.canEdit}
          onSound={(sound) => void putSound(version.language, sound)}
        />
      </Box>
      {wrong ? <Wrong>{wrong}</Wrong> : null}
      {data.canEdit && shown > 0 ? (
        <Act
          mt="10px"
          onClick={() => {
            edit.choose(
              'versions',
              others.filter((_, i) => i !== shown - 1),
            );
            setAt(0);
          }}
        >
          Take {languageName(version.language)} out
        </Act>
      ) : null}
    </Box>
  );
}

/** The text of a version, typed as it is said; a pause is written into it with a button. */
function VersionText({
  edit,
  at,
  canEdit,
  spoken,
}: {
  edit: ObjectEdit;
  at: number;
  canEdit: boolean;
  spoken: PromptData['spoken'];
}) {
  const id = useId();
  const others = versionsOf(edit);
  const text = at === 0 ? String(edit.value.text ?? '') : (others[at - 1]?.text ?? '');
  const field = at === 0 ? 'text' : 'versions';
  const put = (next: string) =>
    at === 0
      ? edit.set('text', next)
      : edit.set(
          'versions',
          others.map((v, i) => (i === at - 1 ? { ...v, text: next } : v)),
        );
  return (
    <Box>
      <Labelled title="What is said, word for word" htmlFor={id} error={edit.errorOf(field)}>
        <AreaBox
          id={id}
          data-field={field}
          h="96px"
          value={text}
          disabled={!canEdit}
          onChange={(e) => put(e.target.value)}
          onBlur={() => void edit.commit()}
        />
      </Labelled>
      <Flex gap="10px" align="center" mt="4px" wrap="wrap" fontSize="13px" color="quiet">
        {canEdit ? (
          <Act
            onClick={() => {
              const box = document.getElementById(id) as HTMLTextAreaElement;
              put(`${text.slice(0, box.selectionStart)}${PAUSE}${text.slice(box.selectionStart)}`);
            }}
          >
            Put a pause here
          </Act>
        ) : null}
        {text ? <span>about {secondsToSay(text)} s</span> : null}
        {spoken.length > 0 ? (
          <span>names {spoken.map((s) => `key ${s.key}${s.what ? ` for ${s.what}` : ''}`).join(', ')}</span>
        ) : null}
      </Flex>
    </Box>
  );
}

/** Where it is heard, and the act that hears another one there instead. */
function Users({ page: { data, users, others } }: { page: PromptData }) {
  const refresh = useRefresh();
  const { pathOf } = useKinds();
  const [by, setBy] = useState<string | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const replace = async () => {
    const made = await call('replacePrompt', { params: { id: String(data.object.id) }, body: { by: by! } });
    setWrong(made.ok ? null : made.errors[0]!.sentence);
    if (!made.ok) return;
    setBy(null);
    refresh();
  };
  if (users.length === 0)
    return <Box color="quiet">{data.object.phrase ? 'Wherever the exchange says this phrase.' : 'Nowhere yet.'}</Box>;
  return (
    <Box>
      {users.map((u) => {
        const path = pathOf(u.kind, u.id);
        return (
          <Flex key={`${u.kind} ${u.id}`} gap="8px" align="center" minH="28px">
            <Glyph kind={u.kind} />
            {path ? <Link href={path}>{u.label}</Link> : u.label}
          </Flex>
        );
      })}
      {data.canEdit ? (
        <Flex gap="8px" mt="8px" align="center" wrap="wrap">
          <Box w="260px">
            <RefPicker
              aria-label="Another prompt for all of these"
              value={by}
              nullable
              placeholder="another prompt for all of these …"
              options={others}
              onChange={setBy}
            />
          </Box>
          <Act disabled={by === null} onClick={() => void replace()}>
            Replace it in {users.length === 1 ? 'this place' : `all ${users.length} places`}
          </Act>
        </Flex>
      ) : null}
      {wrong ? <Wrong>{wrong}</Wrong> : null}
    </Box>
  );
}
