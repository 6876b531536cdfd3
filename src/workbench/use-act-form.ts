'use client';

import { standardSchemaResolver } from '@hookform/resolvers/standard-schema';
import type { StandardSchemaV1 } from '@standard-schema/spec';
import { useCallback, useEffect, useRef, useState } from 'react';
import {
  useForm,
  type DefaultValues,
  type FieldValues,
  type Path,
  type Resolver,
  type UseFormReturn,
} from 'react-hook-form';
import type { Answer, Input } from '@/contract';
import type { OperationName } from '@/contract/paths';
import { settled } from '@/ui/settling';
import { readKept, writeKept, type KeptAbout } from '@/ui/kept';
import { call, type ApiErrors, type ApiResult } from './api';

/** A form whose fields become the body of one operation. */
export interface ActFormOptions<N extends OperationName, T extends FieldValues> {
  operation: N;
  /** what stands in the fields before anything is typed; fields that nobody touched follow it */
  defaults: T;
  /** what the operation is sent for what is typed */
  input: (values: T) => Input<N>;
  /** how it is sent; left out: at once */
  send?: (input: Input<N>) => Promise<ApiResult<Answer<N>>>;
  /** false: whoever types has no session yet, and what is wrong is said when it is sent */
  checked?: boolean;
  /** what is not even worth sending: said at once */
  unsaid?: (values: T) => { field: Path<T>; sentence: string }[];
  /** the field that an error belongs to, by its path in the body; null: none of this form */
  fieldOf?: (path: string) => Path<T> | null;
  /** where what is typed is kept in this browser, and what it is called among what was typed; null: nowhere, or by no name */
  keep?: { key: string; about: KeptAbout | null } | null;
  /** fields that are never kept */
  secrets?: readonly Path<T>[];
  /** what is typed is kept on when it was sent: it was only looked at */
  looksOnly?: boolean;
  onMade: (answer: Answer<N>, values: T) => void;
}

export interface ActForm<T extends FieldValues> {
  form: UseFormReturn<T>;
  submit: (e?: React.BaseSyntheticEvent) => Promise<void>;
  busy: boolean;
  /** why nothing was done, where no field is to blame */
  general: string | null;
  /** something was typed */
  touched: boolean;
  /**
   * Forgets what was typed; what stands there then is `to`, left out: what stood there before anything was typed. Called by `onMade`
   * it forgets what was sent: what was typed since stays.
   */
  clear: (to?: T) => void;
}

const same = (a: unknown, b: unknown) => JSON.stringify(a ?? null) === JSON.stringify(b ?? null);

/**
 * A form of fields that add or change something in one act. What is typed is held against the schema of its operation (where
 * that schema is: on the server), is kept in this browser until it is done, and what the server refuses stands at its field.
 */
export function useActForm<N extends OperationName, T extends FieldValues>(options: ActFormOptions<N, T>): ActForm<T> {
  const { defaults, keep = null } = options;
  const now = useRef(options);
  useEffect(() => {
    now.current = options;
  });
  // What the fields are held against, to tell whether anything was typed.
  const base = useRef(defaults);
  const defaultsText = JSON.stringify(defaults);
  useEffect(() => {
    base.current = now.current.defaults;
  }, [defaultsText]);
  const sending = useRef(false);
  /** what was sent and is being answered */
  const sent = useRef<T | null>(null);
  const [busy, setBusy] = useState(false);
  const [general, setGeneral] = useState<string | null>(null);
  const [touched, setTouched] = useState(false);
  const fieldOf = useCallback((path: string): Path<T> | null => {
    const { fieldOf: of, defaults: known } = now.current;
    if (of) return of(path);
    const head = path.split('.')[0]!;
    return head in known ? (head as Path<T>) : null;
  }, []);
  /** What is wrong with the values, by the schema of the operation. */
  const validate = useCallback(
    async (value: T): Promise<StandardSchemaV1.Result<T>> => {
      // What is sent is looked at where it is done.
      if (sending.current) return { value };
      const { operation, input, unsaid, checked = true } = now.current;
      const missing = unsaid?.(value) ?? [];
      if (missing.length > 0)
        return { issues: missing.map(({ field, sentence }) => ({ message: sentence, path: field.split('.') })) };
      if (!checked) return { value };
      const { body } = input(value);
      const got = await call('checkBody', { params: { operation }, body: body as Record<string, unknown> });
      if (!got.ok) return { value };
      const issues = got.value.errors.flatMap((e) => {
        const field = fieldOf(e.path);
        return field ? [{ message: e.sentence, path: field.split('.') }] : [];
      });
      return issues.length > 0 ? { issues } : { value };
    },
    [fieldOf],
  );
  const resolver = useCallback<Resolver<T, unknown, T>>(
    (...asked) =>
      standardSchemaResolver<T, unknown, T>({
        '~standard': { version: 1, vendor: 'polydrome', validate: (value) => validate(value as T) },
      })(...asked),
    [validate],
  );
  const form = useForm<T>({
    defaultValues: defaults as DefaultValues<T>,
    values: defaults,
    resetOptions: { keepDirtyValues: true, keepErrors: true },
    resolver,
    mode: 'onBlur',
    reValidateMode: 'onBlur',
  });
  const { key, about } = keep ?? { key: null, about: null };
  const aboutText = JSON.stringify(about);
  const { subscribe, setValue, getValues } = form;

  // What was typed before comes back once, after the page stands.
  useEffect(() => {
    if (key === null) return;
    const kept = readKept<Partial<T>>(key);
    for (const [field, value] of Object.entries(kept ?? {}))
      setValue(field as Path<T>, value as never, { shouldDirty: true });
    // eslint-disable-next-line react-hooks/set-state-in-effect
    if (kept) setTouched(true);
  }, [key, setValue]);

  useEffect(
    () =>
      subscribe({
        formState: { values: true },
        callback: ({ values }) => {
          const { secrets: never = [] } = now.current;
          const typed = Object.entries(values).filter(([f, v]) => !same(v, base.current[f]));
          setTouched(typed.length > 0);
          if (key === null) return;
          const kept = typed.filter(([f]) => !(never as readonly string[]).includes(f));
          writeKept(key, kept.length > 0 ? Object.fromEntries(kept) : null, JSON.parse(aboutText) as KeptAbout | null);
        },
      }),
    [subscribe, key, aboutText],
  );

  // The field that has to be mended comes under the hands once it can be typed into again.
  const focusNext = useRef<Path<T> | null>(null);
  useEffect(() => {
    if (busy || focusNext.current === null) return;
    form.setFocus(focusNext.current);
    focusNext.current = null;
  }, [busy, form]);

  const refused = ({ errors }: ApiErrors) => {
    let elsewhere: string | null = null;
    for (const e of errors) {
      const field = fieldOf(e.path);
      if (field === null) elsewhere ??= e.sentence;
      else {
        form.setError(field, { type: 'refused', message: e.sentence });
        focusNext.current ??= field;
      }
    }
    setGeneral(elsewhere);
  };
  const clear = (to = defaults) => {
    const now = getValues();
    const since = sent.current ? Object.keys(now).filter((f) => !same(now[f], sent.current![f])) : [];
    base.current = to;
    if (key !== null) writeKept(key, null, null);
    form.reset(to, { keepDirtyValues: false, keepErrors: false });
    setTouched(false);
    setGeneral(null);
    for (const f of since) setValue(f as Path<T>, now[f] as never, { shouldDirty: true });
  };
  const submit = async (e?: React.BaseSyntheticEvent) => {
    e?.preventDefault();
    // Two quick presses are one act.
    if (sending.current) return;
    // A field that has the focus may not have said yet what it means.
    await settled();
    if (sending.current) return;
    const missing = now.current.unsaid?.(getValues()) ?? [];
    if (missing.length > 0) {
      for (const { field, sentence } of missing) form.setError(field, { type: 'unsaid', message: sentence });
      return form.setFocus(missing[0]!.field);
    }
    sending.current = true;
    setBusy(true);
    setGeneral(null);
    form.clearErrors();
    const values = structuredClone(getValues());
    const { operation, input, send, looksOnly, onMade } = now.current;
    const ask = call as (name: N, input: Input<N>) => Promise<ApiResult<Answer<N>>>;
    const made = await (send ? send(input(values)) : ask(operation, input(values)));
    sending.current = false;
    if (!made.ok) refused(made);
    setBusy(false);
    if (!made.ok) return;
    if (key !== null && !looksOnly) writeKept(key, null, null);
    sent.current = values;
    onMade(made.value, values);
    sent.current = null;
  };
  return { form, submit, busy, general, touched, clear };
}
