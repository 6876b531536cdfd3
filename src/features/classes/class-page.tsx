'use client';

import { Box, Grid } from '@chakra-ui/react';
import { useRouter } from 'next/navigation';
import { Fragment, useState } from 'react';
import { v7 as uuid } from 'uuid';
import { CALL_KIND_WORDS } from '@/core/numbers/kinds';
import type { ClassRight } from '@/core/plan/objects/class';
import { RULED_KINDS } from '@/core/plan/facts/ruled-kinds';
import { Act, TickBox } from '@/ui/controls';
import { useFocusNote } from '@/ui/workspace';
import { useEdits, type ObjectEdit } from '@/workbench/edits';
import { ObjectPage } from '@/workbench/object-page';
import type { ObjectPageData } from '@/workbench/form-data';
import { Picture } from '@/workbench/picture';

export function ClassPage({ data }: { data: ObjectPageData }) {
  return (
    <ObjectPage
      data={data}
      listPath="/classes"
      acts={data.canEdit ? <AnotherLikeIt data={data} /> : null}
      top={() => <Picture around={data.around} />}
      parts={[
        { title: 'What its phones may do', draw: (edit) => <Rights edit={edit} disabled={!data.canEdit} /> },
        {
          title: 'Whose lines it may watch',
          fields: ['watch', ...(data.object.watch === 'list' ? ['watchPeople', 'watchTeams'] : [])],
        },
        { title: 'Name and note', fields: ['name', 'note'] },
      ]}
    />
  );
}

/** A class with the same rights under another name, which is then edited. */
function AnotherLikeIt({ data }: { data: ObjectPageData }) {
  const router = useRouter();
  const edits = useEdits();
  const [wrong, setWrong] = useState<string | null>(null);
  const copy = async () => {
    const id = uuid();
    const { id: _id, ...value } = data.object;
    const name = `${data.label} (another)`.slice(0, 80);
    const made = await edits.together([{ do: 'add', of: { kind: 'class', id }, value: { ...value, name } }]);
    if (made.ok) router.push(`/classes/${id}`);
    else setWrong(made.errors[0]!.sentence);
  };
  return (
    <>
      {wrong ? (
        <Box as="span" role="alert" color="brick">
          {wrong}
        </Box>
      ) : null}
      <Act onClick={() => void copy()}>Another like it</Act>
    </>
  );
}

const ASPECTS: { key: keyof ClassRight; title: string; note: string }[] = [
  {
    key: 'allow',
    title: 'May call',
    note: 'Whether these calls go out at all. Refused callers hear that the call is barred (SIP 403, Q.850 21).',
  },
  { key: 'pin', title: 'With PIN', note: 'Ask for a PIN before the call goes out.' },
  {
    key: 'forward',
    title: 'May forward to',
    note: 'Whether calls may be forwarded to outside numbers of this kind: the company pays for that leg.',
  },
  {
    key: 'transfer',
    title: 'May transfer to',
    note: 'Whether a caller from outside may be transferred to outside numbers of this kind: the company pays for that leg.',
  },
];

/** Kinds of call down, what is allowed across. Emergency stands first and can't be taken away. */
function Rights({ edit, disabled }: { edit: ObjectEdit; disabled: boolean }) {
  const rights = edit.value.rights as Record<string, ClassRight>;
  return (
    <Grid
      templateColumns="minmax(110px, 220px) repeat(4, minmax(58px, 104px))"
      rowGap="0"
      fontSize="14px"
      data-testid="rights"
    >
      <Box />
      {ASPECTS.map((a) => (
        <Box key={a.key} fontSize="12px" lineHeight="16px" color="quiet" pb="4px" alignSelf="end">
          {a.title}
        </Box>
      ))}
      <Box minH="30px" borderTop="1px solid" borderColor="line" pt="5px">
        emergency
      </Box>
      <Box gridColumn="span 4" minH="30px" borderTop="1px solid" borderColor="line" pt="5px" color="quiet">
        always, from every phone
      </Box>
      {RULED_KINDS.map((kind) => (
        <Fragment key={kind}>
          <Box minH="30px" borderTop="1px solid" borderColor="line" pt="5px">
            {CALL_KIND_WORDS[kind]}
          </Box>
          {ASPECTS.map((a) => (
            <Box key={a.key} minH="30px" borderTop="1px solid" borderColor="line" pt="6px">
              {kind === 'internal' && (a.key === 'forward' || a.key === 'transfer') ? null : (
                <Tick
                  label={`${CALL_KIND_WORDS[kind]}: ${a.title}`}
                  note={a}
                  disabled={disabled || (a.key === 'pin' && !rights[kind]!.allow)}
                  checked={rights[kind]![a.key] ?? false}
                  onChange={(on) =>
                    edit.choose('rights', {
                      ...rights,
                      [kind]: { ...rights[kind], [a.key]: on, ...(a.key === 'allow' && !on ? { pin: false } : {}) },
                    })
                  }
                />
              )}
            </Box>
          ))}
        </Fragment>
      ))}
    </Grid>
  );
}

function Tick({
  label,
  note,
  ...rest
}: {
  label: string;
  note: { title: string; note: string };
  checked: boolean;
  disabled: boolean;
  onChange: (on: boolean) => void;
}) {
  const focus = useFocusNote(note.title, note.note);
  return (
    <TickBox
      type="checkbox"
      aria-label={label}
      checked={rest.checked}
      disabled={rest.disabled}
      {...focus}
      onChange={(e) => rest.onChange(e.target.checked)}
    />
  );
}
