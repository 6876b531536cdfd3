'use client';

import { Box } from '@chakra-ui/react';
import { useId, useMemo, useRef, useState } from 'react';
import { CALLING_COUNTRIES } from '@/core/numbers/calling-countries';
import type { FieldFacts } from '@/core/plan';
import { countryName } from '@/core/plan/facts/value-words';
import { ChoiceBox } from '@/ui/choice-box';
import { AreaBox } from '@/ui/controls';
import { PickList } from '@/ui/pick-list';
import { useFocusNote } from '@/ui/workspace';
import { call } from '@/workbench/api';
import type { ObjectEdit } from '@/workbench/edits';
import { FieldRow } from '@/workbench/field-control';

/* Which callers a route is for: countries by name, and numbers one a line in any spelling. */

interface Props {
  edit: ObjectEdit;
  fact: FieldFacts;
  disabled: boolean;
}

export function CallingCountries({ edit, fact, disabled }: Props) {
  const id = useId();
  const { onFocus } = useFocusNote(fact.title, fact.description);
  const taken = edit.value.callingCountries as string[];
  const choices = useMemo(
    () =>
      CALLING_COUNTRIES.map((c) => ({ id: c, label: countryName(c), more: c })).sort((a, b) =>
        a.label.localeCompare(b.label, 'en'),
      ),
    [],
  );
  return (
    <FieldRow title={fact.title} htmlFor={id} note={fact.description} error={edit.errorOf('callingCountries')}>
      <PickList
        items={taken.map((c) => ({ id: c, name: countryName(c) }))}
        label={fact.title ?? ''}
        disabled={disabled}
        ordered={false}
        onChange={(next) => edit.choose('callingCountries', next)}
      >
        <ChoiceBox
          key={taken.join()}
          id={id}
          aria-label={fact.title}
          data-field="callingCountries"
          value={null}
          nullable
          placeholder="add a country"
          choices={choices.filter((c) => !taken.includes(c.id))}
          onFocus={onFocus}
          onChange={(c) => c && edit.choose('callingCountries', [...taken, c])}
        />
      </PickList>
    </FieldRow>
  );
}

const LINES = /\r\n|\n|\r/;

/** Numbers of callers, one a line. Left, they are read as at the route's site; what can't be read stays as it was typed. */
export function CallingNumbers({ edit, fact, disabled, site }: Props & { site: string | null }) {
  const id = useId();
  const focus = useFocusNote(fact.title, fact.description);
  const [wrong, setWrong] = useState<string[]>([]);
  const lines = edit.value.callingNumbers as string[];
  const typed = useRef<string | null>(null);
  const leave = async () => {
    if (!edit.pending.includes('callingNumbers')) return;
    const text = lines.join('\n');
    typed.current = text;
    const got = site === null ? null : await call('readCallers', { body: { text, site } });
    const read = got?.ok
      ? got.value.entries
      : lines.filter((l) => l.trim() !== '').map((l) => ({ text: l, numbers: [l.trim()], wrong: null }));
    // Somebody types on: it is read when that is left.
    if (typed.current !== text) return;
    setWrong(read.flatMap((e) => e.wrong ?? []));
    const next = read.flatMap((e) => (e.wrong === null ? e.numbers : [e.text]));
    edit.set('callingNumbers', [...new Set(next)]);
    await edit.commit();
  };
  const error = wrong.length > 0 ? wrong.slice(0, 5).join(' ') : edit.errorOf('callingNumbers');
  return (
    <FieldRow
      title={fact.title}
      htmlFor={id}
      note={`${fact.description ?? ''} One a line, or a range; in any spelling.`}
      error={error}
      said={lines.length > 1 && !error ? <Box fontSize="13px">{lines.filter(Boolean).length} numbers</Box> : null}
    >
      <AreaBox
        id={id}
        disabled={disabled}
        data-field="callingNumbers"
        aria-invalid={error ? true : undefined}
        fontFamily="mono"
        fontSize="13px"
        h={lines.length > 4 ? '132px' : '76px'}
        inputMode="tel"
        spellCheck={false}
        placeholder="+46 31 390 06 10"
        value={lines.join('\n')}
        {...focus}
        onChange={(e) => {
          setWrong([]);
          typed.current = e.target.value;
          edit.set('callingNumbers', e.target.value === '' ? [] : e.target.value.split(LINES));
        }}
        onBlur={() => void leave()}
      />
    </FieldRow>
  );
}
