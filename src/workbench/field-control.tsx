'use client';

import { Box, Flex, Grid, chakra } from '@chakra-ui/react';
import { useId, type ReactNode } from 'react';
import { CALL_KIND_WORDS, CALL_KINDS } from '@/core/numbers/kinds';
import { CODECS } from '@/core/plan/facts/codecs';
import { PROMISE_ENDS } from '@/core/plan/facts/promises';
import type { FieldFacts } from '@/core/plan';
import { compileDigitMap, countDialable, mapInWords } from '@/core/digits';
import { AreaBox, SelectBox, TextBox, TickBox } from '@/ui/controls';
import { DayBox } from '@/ui/day-box';
import { MapText } from '@/ui/digits';
import { DIGIT_FIELDS, DigitsBox } from '@/ui/digits-box';
import { FigureBox } from '@/ui/figure-box';
import { PickList } from '@/ui/pick-list';
import { useFocusNote } from '@/ui/workspace';
import { choiceWords } from '@/core/plan/facts/choice-words';
import { bigCount } from './count';
import { CountryBox, ZoneBox } from './country-box';
import type { ObjectEdit } from './edits';
import type { FieldsData } from './form-data';
import { Foreseen } from './foreseen';
import { LanguageBox } from './language-box';
import { NumberBox } from './number-box';
import { RefList, RefPicker } from './ref-picker';
import { unitOf } from './units';

const MAP_FIELDS = new Set(['map', 'dialMap', 'calledMap', 'callingMap', 'blockedCallers']);
/** Telephone numbers, written as at the site of their object. */
const NUMBER_FIELDS = new Set(['e164', 'overflowTo']);
/** Lists of references whose order says something. */
const ORDERED = new Set([
  'trunks',
  'emergencyTrunks',
  'members',
  'outside',
  'agents',
  'permanentAgents',
  'secondAgents',
  'thirdAgents',
]);
const MONO_FIELDS = new Set(['e164', 'from', 'to', 'host', 'account']);

/** What holds where nothing is chosen, where that is not nothing. */
const NOTHING_CHOSEN: Readonly<Record<string, string>> = {
  greeting: 'the built-in greeting',
  greetingBusy: 'the greeting above',
  greetingAway: 'the first greeting',
  outgoingNumber: 'its own, else the site’s',
};

interface ControlProps {
  fact: FieldFacts;
  edit: ObjectEdit;
  data: FieldsData;
}

/** A row of a form: the name of the field, its control, and beneath it what is to be said of it. */
export function FieldRow({
  title,
  htmlFor,
  note,
  error,
  said,
  children,
}: {
  title: ReactNode;
  htmlFor?: string;
  note?: string;
  error?: string | null;
  /** what is said of what stands there */
  said?: ReactNode;
  children: ReactNode;
}) {
  return (
    <Grid templateColumns={{ base: '1fr', md: '176px minmax(0, 1fr)' }} columnGap="16px" rowGap="3px">
      <chakra.label htmlFor={htmlFor} pt={{ md: '6px' }} color="ink" overflowWrap="anywhere">
        {title}
      </chakra.label>
      <Box minW={0} maxW="440px">
        {children}
        {error ? (
          <Box role="alert" id={htmlFor && `${htmlFor}-error`} fontSize="13px" color="brick" mt="3px">
            {error}
          </Box>
        ) : null}
        {said}
        {note ? (
          <Box id={htmlFor && `${htmlFor}-note`} fontSize="12px" lineHeight="17px" color="quiet" mt="3px">
            {note}
          </Box>
        ) : null}
      </Box>
    </Grid>
  );
}

/** One field of an object, from what the schema knows of it. Leaving it makes the draft edit. */
export function FieldControl({ fact, edit, data }: ControlProps) {
  const id = useId();
  const focus = useFocusNote(fact.title, fact.description);
  const { field } = fact;
  const error = edit.errorOf(field);
  const typed = edit.pending.includes(field);
  const control: Control = {
    id,
    disabled: !data.canEdit,
    'aria-invalid': error ? true : undefined,
    'aria-describedby':
      [error ? `${id}-error` : '', fact.description ? `${id}-note` : ''].filter(Boolean).join(' ') || undefined,
    'data-field': field,
    ...focus,
  };
  return (
    <FieldRow
      title={
        <>
          {fact.type === 'boolean' ? null : fact.title}
          {typed && !error && fact.type !== 'boolean' ? <Unsaved /> : null}
        </>
      }
      htmlFor={id}
      note={fact.description}
      error={error}
      said={
        <>
          {MAP_FIELDS.has(field) && edit.value[field] && !error ? <MapSaid map={String(edit.value[field])} /> : null}
          <Foreseen
            kind={data.kind}
            id={data.object.id ?? 'organisation'}
            field={field}
            typed={typed ? edit.value[field] : undefined}
          />
        </>
      }
    >
      <Box opacity={control.disabled ? 0.9 : undefined}>
        <TheControl fact={fact} edit={edit} data={data} control={control} />
      </Box>
    </FieldRow>
  );
}

const Unsaved = () => (
  <Box as="span" display="block" fontSize="12px" color="saffronText">
    typed, not in the draft yet
  </Box>
);

interface Control {
  id: string;
  disabled: boolean;
  'aria-invalid'?: true;
  'aria-describedby'?: string;
  'data-field': string;
  onFocus: () => void;
}

function TheControl({ fact, edit, data, control }: ControlProps & { control: Control }) {
  const { field } = fact;
  const value = edit.value[field];
  const choose = (next: unknown) => edit.choose(field, next);
  if (fact.type === 'boolean')
    return (
      <Flex as="label" gap="8px" align="center" minH="32px">
        <TickBox type="checkbox" {...control} checked={Boolean(value)} onChange={(e) => choose(e.target.checked)} />
        <span>{fact.title}</span>
      </Flex>
    );
  if (field in WORD_LISTS) return <WordList fact={fact} edit={edit} control={control} />;
  if (fact.choices)
    return (
      <SelectBox {...control} value={String(value)} onChange={(e) => choose(e.target.value)}>
        {fact.choices.map((c) => (
          <option key={c} value={c}>
            {choiceWords(c)}
          </option>
        ))}
      </SelectBox>
    );
  if (fact.ref && fact.many)
    return (
      <RefList
        ids={value as string[]}
        options={data.options[fact.ref] ?? []}
        search={data.long.includes(fact.ref) ? fact.ref : undefined}
        disabled={control.disabled}
        ordered={ORDERED.has(field)}
        label={fact.title ?? field}
        onFocus={control.onFocus}
        onChange={choose}
      />
    );
  if (fact.ref)
    return (
      <RefPicker
        {...control}
        kind={fact.ref}
        value={value as string | null}
        options={data.options[fact.ref] ?? []}
        search={data.long.includes(fact.ref) ? fact.ref : undefined}
        nullable={fact.nullable}
        placeholder={NOTHING_CHOSEN[field]}
        onChange={choose}
      />
    );
  if (NUMBER_FIELDS.has(field) && typeof edit.value.site === 'string')
    return (
      <NumberBox
        {...control}
        value={String(value ?? '')}
        site={edit.value.site}
        onType={(text) => edit.set(field, text === '' && fact.nullable ? null : text)}
        onLeave={() => void edit.commit()}
      />
    );
  if (field === 'activeFrom')
    return (
      <DayBox
        {...control}
        value={String(value ?? '')}
        onChange={(day) => edit.set(field, day === '' ? null : day)}
        onBlur={() => void edit.commit()}
        onChosen={() => void edit.commit()}
      />
    );
  if (field === 'country') return <CountryBox {...control} value={String(value)} onChange={choose} />;
  if (field === 'zone') return <ZoneBox {...control} value={String(value)} onChange={choose} />;
  if (field === 'language') return <LanguageBox {...control} value={String(value ?? '')} onChange={choose} />;
  return <Typed fact={fact} edit={edit} data={data} control={control} />;
}

/** What is typed: text, many lines, or a figure with its unit. */
function Typed({ fact, edit, control }: ControlProps & { control: Control }) {
  const { field } = fact;
  const value = edit.value[field];
  const text = value === null || value === undefined ? '' : String(value);
  const leave = () => void edit.commit();
  if (field === 'note')
    return <AreaBox {...control} value={text} onChange={(e) => edit.set(field, e.target.value)} onBlur={leave} />;
  if (fact.type === 'number') {
    return (
      <FigureBox
        {...control}
        title={fact.title ?? field}
        unit={unitOf(field)}
        value={text}
        onChange={(next) => edit.set(field, fromText(fact, next))}
        onLeave={leave}
      />
    );
  }
  if (DIGIT_FIELDS.has(field))
    return (
      <DigitsBox
        {...control}
        value={text}
        onChange={(digits) => edit.set(field, fromText(fact, digits))}
        onBlur={leave}
        onKeyDown={(e) => {
          if (e.key === 'Enter') leave();
        }}
      />
    );
  return (
    <TextBox
      {...control}
      fontFamily={MAP_FIELDS.has(field) || MONO_FIELDS.has(field) ? 'mono' : undefined}
      value={text}
      onChange={(e) => edit.set(field, fromText(fact, e.target.value))}
      onBlur={leave}
      onKeyDown={(e) => {
        if (e.key === 'Enter') leave();
      }}
    />
  );
}

function fromText(fact: FieldFacts, text: string): unknown {
  if (text === '' && fact.nullable) return null;
  if (fact.type !== 'number') return text;
  return /^-?[0-9]+(\.[0-9]+)?$/.test(text) ? Number(text) : text;
}

/** Lists of words that are chosen from, with whether their order says something. */
const WORD_LISTS: Readonly<
  Record<string, { words: readonly string[]; ordered: boolean; add: string; said?: Readonly<Record<string, string>> }>
> = {
  codecs: { words: CODECS, ordered: true, add: 'Add a codec' },
  dialKinds: { words: CALL_KINDS, ordered: false, add: 'Add a kind of call', said: CALL_KIND_WORDS },
  ends: { words: PROMISE_ENDS, ordered: false, add: 'Add a kind of end' },
};

/** Words that are picked from a list; where their order counts, the best first. */
function WordList({ fact, edit, control }: { fact: FieldFacts; edit: ObjectEdit; control: Control }) {
  const { field } = fact;
  const { words, ordered, add } = WORD_LISTS[field]!;
  const taken = edit.value[field] as string[];
  const said = (word: string) => WORD_LISTS[field]!.said?.[word] ?? choiceWords(word);
  const left = words.filter((w) => !taken.includes(w));
  return (
    <PickList
      items={taken.map((w) => ({ id: w, name: said(w) }))}
      label={fact.title ?? field}
      disabled={control.disabled}
      ordered={ordered}
      onFocus={control.onFocus}
      onChange={(next) => edit.choose(field, next)}
    >
      {left.length > 0 ? (
        <SelectBox
          aria-label={add}
          value=""
          onChange={(e) => e.target.value && edit.choose(field, [...taken, e.target.value])}
        >
          <option value="">add one</option>
          {left.map((w) => (
            <option key={w} value={w}>
              {said(w)}
            </option>
          ))}
        </SelectBox>
      ) : null}
    </PickList>
  );
}

/** A map said in words and counted while it is typed, or where it is wrong. */
function MapSaid({ map }: { map: string }) {
  const read = compileDigitMap(map);
  return (
    <Box fontSize="13px" mt="3px" color={read.ok ? undefined : 'brick'}>
      {read.ok ? (
        <>
          <MapText map={map} /> says: {mapInWords(read.compiled.map)}; takes{' '}
          {bigCount(String(countDialable(read.compiled.automaton)))}.
        </>
      ) : (
        read.error.sentence
      )}
    </Box>
  );
}
