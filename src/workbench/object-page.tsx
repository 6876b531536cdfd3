'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { ChevronDown, ChevronRight } from 'lucide-react';
import { useRouter } from 'next/navigation';
import { Fragment, useEffect, useState, type ReactNode } from 'react';
import type { FieldFacts } from '@/core/plan';
import { valueWords } from '@/core/plan/facts/value-words';
import { Act, ActLink, PartTitle, Wrong } from '@/ui/controls';
import { Later } from '@/ui/later';
import { Workspace } from '@/ui/workspace';
import { ConflictPanel } from './conflict-panel';
import { useEdits, useTitles, type EditedObject, type ObjectEdit } from './edits';
import { FieldControl } from './field-control';
import { nameIn, type FieldsData, type ObjectPageData } from './form-data';
import { ConsequencesPane } from './pane';

/** A part of an object's page: fields by name, and whatever the area draws for itself. */
export interface Part {
  title: string;
  fields?: string[];
  /** the controls of those fields that the area draws itself */
  controls?: Record<string, (edit: ObjectEdit, fact: FieldFacts) => ReactNode>;
  draw?: (edit: ObjectEdit) => ReactNode;
  /** rarely set: folded under a line that says what stands in it */
  rare?: true;
}

/** The page of one object of the plan: its parts, its conflicts, its consequences. Areas give the parts and a picture on top. */
export function ObjectPage({
  data,
  parts,
  top,
  acts,
  below,
  removal,
  listPath,
}: {
  data: ObjectPageData;
  parts: Part[];
  top?: (edit: ObjectEdit) => ReactNode;
  acts?: ReactNode;
  /** after the parts: what belongs to the object but is edited by itself */
  below?: ReactNode;
  /** instead of deleting it here, such as a guided act */
  removal?: ReactNode;
  listPath: string;
}) {
  const router = useRouter();
  const edits = useEdits();
  const edit = edits.of(useEdited(data));
  const [removing, setRemoving] = useState(false);
  const [refusal, setRefusal] = useState<string | null>(null);
  const { commit } = edit;

  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (!(e.ctrlKey || e.metaKey) || e.key !== 's') return;
      e.preventDefault();
      void commit();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [commit]);

  const remove = async () => {
    const done = await edits.together(
      [
        ...data.parts.map(({ kind, id, ...base }) => ({ do: 'remove' as const, of: { kind, id }, base })),
        { do: 'remove', of: { kind: data.kind, id: data.object.id! }, base: data },
      ],
      data.parts.length > 0 ? `deleted ${data.word} ${data.label}`.slice(0, 80) : undefined,
    );
    if (!done.ok) {
      setRefusal(done.errors[0]!.sentence);
      setRemoving(false);
      return;
    }
    router.push(listPath);
  };

  return (
    <Workspace
      title={data.label}
      count={
        data.pending ? (
          <Box as="span" bg="saffron" color="saffronInk" rounded="3px" px="6px">
            edited, not live yet
          </Box>
        ) : undefined
      }
      acts={
        <>
          {acts}
          <ActLink href={`/history?object=${data.object.id}`}>History</ActLink>
          {data.canEdit ? (removal ?? <Act onClick={() => setRemoving(true)}>Delete…</Act>) : null}
        </>
      }
      pane={<ConsequencesPane around={data.around} mayEdit={data.canEdit} />}
    >
      {removing ? (
        <Box
          role="alertdialog"
          aria-label="Delete"
          border="1px solid"
          borderColor="brick"
          rounded="4px"
          p="12px"
          mb="14px"
        >
          <Box mb="8px">
            <Later of={data.around}>
              {({ referredToBy }) =>
                referredToBy > 0
                  ? `${referredToBy} ${referredToBy === 1 ? 'thing still points' : 'things still point'} to ${data.word} ${data.label}; they stand under “Reached by”. It can be deleted once they point elsewhere.`
                  : `${data.word} ${data.label} goes from the draft${partsSaid(data.parts.length)}; live keeps it until you go live.`
              }
            </Later>
          </Box>
          <Flex gap="8px">
            <Act look="danger" onClick={remove}>
              Delete {data.label}
            </Act>
            <Act onClick={() => setRemoving(false)}>Keep it</Act>
          </Flex>
        </Box>
      ) : null}
      {refusal ? (
        <Box mb="14px">
          <Wrong>{refusal}</Wrong>
        </Box>
      ) : null}
      <ConflictPanel edit={edit} fields={data.fields} options={data.options} />
      {edit.general ? (
        <Box mb="14px">
          <Wrong>{edit.general}</Wrong>
        </Box>
      ) : null}
      {top ? <Box mb="18px">{top(edit)}</Box> : null}
      <PartList data={data} edit={edit} parts={parts} />
      {below}
      {data.canEdit ? null : <Box color="quiet">You look at this; an administrator can edit it.</Box>}
    </Workspace>
  );
}

/** Parts of an object that is shown within the page of another: edited by itself, with its own conflicts. */
export function ObjectParts({ data, parts }: { data: FieldsData; parts: Part[] }) {
  const edit = useEdits().of(useEdited(data));
  return (
    <>
      <ConflictPanel edit={edit} fields={data.fields} options={data.options} />
      {edit.general ? (
        <Box mb="14px">
          <Wrong>{edit.general}</Wrong>
        </Box>
      ) : null}
      <PartList data={data} edit={edit} parts={parts} />
    </>
  );
}

const partsSaid = (count: number) =>
  count === 0 ? '' : `, with ${count} ${count === 1 ? 'thing that is a part' : 'things that are parts'} of it`;

/** The object of a page as what is edited. */
function useEdited({ kind, object, rowVersion, label, fields }: FieldsData): EditedObject {
  return { kind, object, rowVersion, label, titles: useTitles(fields) };
}

const factOf = (data: FieldsData, field: string) => data.fields.find((f) => f.field === field)!;

function PartList({ data, edit, parts }: { data: FieldsData; edit: ObjectEdit; parts: Part[] }) {
  return (
    <>
      {parts.map((part) =>
        part.rare ? (
          <RarePart key={part.title} part={part} data={data} edit={edit} />
        ) : (
          <Box key={part.title} mb="22px" maxW="760px" as="section" aria-label={part.title}>
            <PartTitle>{part.title}</PartTitle>
            <PartFields part={part} data={data} edit={edit} />
          </Box>
        ),
      )}
    </>
  );
}

function PartFields({ part, data, edit }: { part: Part; data: FieldsData; edit: ObjectEdit }) {
  return (
    <Flex direction="column" gap="12px">
      {part.fields?.map((f) => (
        <Fragment key={f}>
          {part.controls?.[f]?.(edit, factOf(data, f)) ?? (
            <FieldControl fact={factOf(data, f)} edit={edit} data={data} />
          )}
        </Fragment>
      ))}
      {part.draw ? part.draw(edit) : null}
    </Flex>
  );
}

/** What is rarely set, folded under a line that says what stands in it. */
function RarePart({ part, data, edit }: { part: Part; data: FieldsData; edit: ObjectEdit }) {
  const fields = part.fields ?? [];
  const needed = fields.some((f) => edit.errorOf(f) !== null || edit.pending.includes(f) || f in edit.contested);
  const [shown, setOpen] = useState(false);
  // It never folds by itself: somebody may be typing in it.
  if (needed && !shown) setOpen(true);
  const said = fields.map((f) => {
    const fact = factOf(data, f);
    return `${fact.title}: ${valueWords(f, edit.value[f], nameIn(data.options[fact.ref ?? '']))}`;
  });
  return (
    <Box mb="16px" maxW="760px" borderTop="1px solid" borderColor="line" pt="8px" as="section" aria-label={part.title}>
      <chakra.button
        type="button"
        display="flex"
        gap="8px"
        alignItems="baseline"
        textAlign="left"
        w="100%"
        aria-expanded={shown}
        onClick={() => setOpen(!shown)}
      >
        <Box alignSelf="center" color="quiet">
          {shown ? <ChevronDown size={16} /> : <ChevronRight size={16} />}
        </Box>
        <chakra.span fontWeight={700} flexShrink={{ base: 1, md: 0 }}>
          {part.title}
        </chakra.span>
        {shown ? null : (
          <chakra.span color="quiet" fontSize="13px" minW={0} overflow="hidden" textOverflow="ellipsis" lineClamp={2}>
            {said.join(' · ')}
          </chakra.span>
        )}
      </chakra.button>
      {shown ? (
        <Box mt="10px">
          <PartFields part={part} data={data} edit={edit} />
        </Box>
      ) : null}
    </Box>
  );
}
