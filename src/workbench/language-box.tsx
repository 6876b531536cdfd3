'use client';

import { useMemo } from 'react';
import { languageName } from '@/core/plan/facts/value-words';
import { ChoiceBox, type Choice, type ChoiceProps } from '@/ui/choice-box';

/** Languages that people of a company speak and speech is made in (BCP 47); any other tag that is set stays. */
const LANGUAGES = [
  'ar', 'bg', 'bn', 'ca', 'cs', 'cy', 'da', 'de', 'de-AT', 'de-CH', 'el', 'en', 'en-AU', 'en-CA', 'en-GB', 'en-IE', 'en-IN', 'en-NZ',
  'en-US', 'en-ZA', 'es', 'es-AR', 'es-ES', 'es-MX', 'et', 'eu', 'fa', 'fi', 'fr', 'fr-BE', 'fr-CA', 'fr-CH', 'fr-FR', 'ga', 'gl',
  'gu', 'he', 'hi', 'hr', 'hu', 'hy', 'id', 'is', 'it', 'it-CH', 'ja', 'ka', 'kk', 'ko', 'lt', 'lv', 'mk', 'ml', 'ms', 'mt', 'nb', 'nl',
  'nl-BE', 'nn', 'pl', 'pt', 'pt-BR', 'pt-PT', 'ro', 'ru', 'sk', 'sl', 'sq', 'sr', 'sv', 'sv-FI', 'sw', 'ta', 'te', 'th', 'tr', 'uk',
  'ur', 'vi', 'zh', 'zh-HK', 'zh-TW',
]; // prettier-ignore

const NONE: readonly Choice[] = [];

/** Chooses a language by its name; the value is its tag (BCP 47), empty for none. */
export function LanguageBox({
  value,
  others = NONE,
  onChange,
  ...rest
}: Omit<ChoiceProps, 'choices' | 'value' | 'onChange' | 'nullable' | 'label'> & {
  value: string;
  /** what may be chosen that is no language, before them */
  others?: readonly Choice[];
  onChange: (tag: string) => void;
}) {
  const choices = useMemo(() => {
    const known = value === '' || LANGUAGES.includes(value) || others.some((o) => o.id === value);
    const named = (known ? LANGUAGES : [...LANGUAGES, value])
      .map((tag) => ({ id: tag, label: languageName(tag), more: tag }))
      .sort((a, b) => a.label.localeCompare(b.label, 'en'));
    return [...others, ...named];
  }, [value, others]);
  return (
    <ChoiceBox
      {...rest}
      nullable
      value={value === '' ? null : value}
      choices={choices}
      onChange={(v) => onChange(v ?? '')}
    />
  );
}
