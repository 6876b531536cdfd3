'use client';

import { useId, type ReactNode } from 'react';
import { useController, type FieldPathValue, type FieldValues, type Path, type UseFormReturn } from 'react-hook-form';
import { Labelled } from '@/ui/controls';
import { useFocusNote } from '@/ui/workspace';

/** What the control of a field is given. */
export interface FormControl<V> {
  id: string;
  name: string;
  ref: (element: HTMLElement | null) => void;
  value: V;
  change: (value: V) => void;
  onBlur: () => void;
  onFocus: () => void;
  'aria-invalid'?: true;
  'aria-describedby'?: string;
}

/** A labelled field of a form; what is wrong with it stands beneath it, its note in the pane while it has the focus. */
export function FormField<T extends FieldValues, P extends Path<T>>({
  form,
  name,
  title,
  note,
  id: wanted,
  more,
  children,
}: {
  form: UseFormReturn<T>;
  name: P;
  title: string;
  note?: string;
  id?: string;
  /** something said of what is typed, before anything is sent */
  more?: { error?: string | null; hint?: ReactNode };
  children: (control: FormControl<FieldPathValue<T, P>>) => ReactNode;
}) {
  const made = useId();
  const id = wanted ?? made;
  const { field, fieldState } = useController({ control: form.control, name });
  const { onFocus } = useFocusNote(title, note);
  const error = more?.error ?? fieldState.error?.message ?? null;
  return (
    <Labelled title={title} htmlFor={id} error={error} hint={more?.hint}>
      {children({
        id,
        name,
        ref: field.ref,
        value: field.value,
        change: field.onChange,
        onBlur: field.onBlur,
        onFocus,
        'aria-invalid': error ? true : undefined,
        'aria-describedby': error ? `${id}-error` : undefined,
      })}
    </Labelled>
  );
}
