'use client';

import { useMemo } from 'react';
import { KNOWN_COUNTRIES } from '@/core/numbers/known-countries';
import { countryName } from '@/core/plan/facts/value-words';
import { ChoiceBox, type ChoiceProps } from '@/ui/choice-box';
import { zoneWords } from './zone-words';

type Props = Omit<ChoiceProps, 'choices' | 'value' | 'onChange' | 'nullable' | 'label'> & {
  /** empty: nothing is chosen */
  value: string;
  /** it may be taken away again */
  nullable?: boolean;
  onChange: (value: string) => void;
};

/** Chooses a country whose numbering is known here, by its name; the value is its code (ISO 3166-1 alpha-2). */
export function CountryBox({ value, onChange, nullable = false, ...rest }: Props) {
  const choices = useMemo(() => {
    return KNOWN_COUNTRIES.map((c) => ({ id: c, label: countryName(c), more: c })).sort((a, b) =>
      a.label.localeCompare(b.label, 'en'),
    );
  }, []);
  return <Chosen {...rest} nullable={nullable} value={value} choices={choices} onChange={onChange} />;
}

/** Chooses a time zone by its place; the value is its IANA name. `first` are those of the country. */
export function ZoneBox({
  first = [],
  value,
  onChange,
  nullable = false,
  ...rest
}: Props & { first?: readonly string[] }) {
  const choices = useMemo(() => {
    const known = new Set([...first, value, ...Intl.supportedValuesOf('timeZone')]);
    return [...known].filter(Boolean).map((z) => ({ id: z, label: zoneWords(z), more: z }));
  }, [first, value]);
  return <Chosen {...rest} nullable={nullable} value={value} choices={choices} onChange={onChange} />;
}

function Chosen({
  value,
  nullable,
  onChange,
  ...rest
}: Props & { nullable: boolean; choices: ChoiceProps['choices'] }) {
  return (
    <ChoiceBox
      {...rest}
      nullable={nullable}
      value={value || null}
      onChange={(v) => (v || nullable) && onChange(v ?? '')}
    />
  );
}
