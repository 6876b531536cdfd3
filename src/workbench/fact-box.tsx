'use client';

import type { FieldFacts } from '@/core/plan';
import { SelectBox, TextBox } from '@/ui/controls';
import { DayBox } from '@/ui/day-box';
import { DIGIT_FIELDS, DigitsBox } from '@/ui/digits-box';
import { FigureBox } from '@/ui/figure-box';
import { choiceWords } from '@/core/plan/facts/choice-words';
import { CountryBox, ZoneBox } from './country-box';
import type { Option } from './form-data';
import type { FormControl } from './form-field';
import { LanguageBox } from './language-box';
import { RefPicker } from './ref-picker';
import { unitOf } from './units';

/** The control of a field in a form, from what the schema knows of it; the value is text, empty while nothing is said. */
export function FactBox({
  fact,
  control,
  options,
  search,
  others = [],
  unsaid,
}: {
  fact: FieldFacts;
  control: FormControl<string>;
  /** what a reference may point to */
  options: readonly Option[];
  /** there are more: they are found by typing, under this name */
  search?: string;
  /** what may be chosen before the choices of the field itself */
  others?: readonly Option[];
  /** what stands where nothing is said */
  unsaid: string;
}) {
  const { field } = fact;
  const title = fact.title ?? field;
  const { value, change, ref, name, onBlur, ...list } = control;
  const put = (next: string | null) => change(next ?? '');
  if (fact.ref)
    return (
      <RefPicker
        {...list}
        kind={fact.ref}
        value={value || null}
        nullable
        options={[...others, ...options]}
        search={search}
        onChange={put}
        placeholder={unsaid}
      />
    );
  const choices: readonly Option[] | undefined =
    fact.type === 'boolean' ? YES_NO : fact.choices?.map((c) => ({ id: c, label: choiceWords(c) }));
  const typed = { ...list, name, ref, onBlur };
  if (choices)
    return (
      <SelectBox {...typed} value={value} onChange={(e) => change(e.target.value)}>
        <option value="">{unsaid}</option>
        {[...others, ...choices].map((c) => (
          <option key={c.id} value={c.id}>
            {c.label}
          </option>
        ))}
      </SelectBox>
    );
  if (field === 'language')
    return <LanguageBox {...list} value={value} others={others} placeholder={unsaid} onChange={change} />;
  if (field === 'country')
    return <CountryBox {...list} nullable value={value} placeholder={unsaid} onChange={change} />;
  if (field === 'zone') return <ZoneBox {...list} nullable value={value} placeholder={unsaid} onChange={change} />;
  if (field === 'activeFrom') return <DayBox {...typed} value={value} onChange={change} />;
  if (fact.type === 'number')
    return (
      <FigureBox
        {...list}
        title={title}
        value={value}
        unit={unitOf(field)}
        placeholder={unsaid}
        onChange={change}
        onLeave={onBlur}
      />
    );
  if (DIGIT_FIELDS.has(field)) return <DigitsBox {...typed} value={value} placeholder={unsaid} onChange={change} />;
  return <TextBox {...typed} value={value} placeholder={unsaid} onChange={(e) => change(e.target.value)} />;
}

const YES_NO: readonly Option[] = [
  { id: 'true', label: 'yes' },
  { id: 'false', label: 'no' },
];
