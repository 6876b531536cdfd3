'use client';

import { useMemo } from 'react';
import { KNOWN_COUNTRIES } from '@/core/numbers/known-countries';
import { countryName } from '@/core/plan/facts/value-words';
import { ChoiceBox, type ChoiceProps } from '@/ui/choice-box';
import { zoneWords } from './zone-words';

type Props = Omit<ChoiceProps, 'choices' | 'value' | 'onChange' | 'nullable' | 'label'> & {
  value: string;
  onChange: (value: string) => void;
};

/** Chooses a country whose numbering is known here, by its name; the value is its code (ISO 3166-1 alpha-2). */
export function CountryBox({ value, onChange, ...rest }: Props) {
  const choices = useMemo(() => {
    return KNOWN_COUNTRIES.map((c) => ({ id: c, label: countryName(c), more: c })).sort((a, b) =>
      a.label.localeCompare(b.label, 'en'),
    );
  }, []);
  return <ChoiceBox {...rest} nullable={false} value={value} choices={choices} onChange={(v) => v && onChange(v)} />;
}

/** Chooses a time zone by its place; the value is its IANA name. `first` are those of the country. */
export function ZoneBox({ first = [], value, onChange, ...rest }: Props & { first?: readonly string[] }) {
  const choices = useMemo(() => {
    const known = new Set([...first, value, ...Intl.supportedValuesOf('timeZone')]);
    return [...known].filter(Boolean).map((z) => ({ id: z, label: zoneWords(z), more: z }));
  }, [first, value]);
  return <ChoiceBox {...rest} nullable={false} value={value} choices={choices} onChange={(v) => v && onChange(v)} />;
}
