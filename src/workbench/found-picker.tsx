'use client';

import type { RefTarget } from '@/core/plan';
import { RefPicker } from './ref-picker';
import { useAsked } from './use-asked';

/** Chooses something of the plan that the page did not bring: the first of the list stand there, the others are found by typing. */
export function FoundPicker({
  target,
  value,
  onChange,
  ...rest
}: {
  target: RefTarget;
  /** empty: nothing is chosen */
  value: string;
  onChange: (id: string) => void;
  id?: string;
  placeholder?: string;
  onFocus?: () => void;
  'aria-label'?: string;
  'aria-invalid'?: true;
  'aria-describedby'?: string;
}) {
  const first = useAsked('options', { params: { target }, query: { text: '' } }, { keep: true });
  return (
    <RefPicker
      {...rest}
      value={value || null}
      nullable
      search={target}
      options={first.value?.options ?? []}
      onChange={(id) => onChange(id ?? '')}
    />
  );
}
