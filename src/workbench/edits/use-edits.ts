'use client';

import { useMemo, useSyncExternalStore } from 'react';
import type { DraftKind } from '@/core/plan';
import type { ApiResult } from '../api';
import type { EditResult } from '@/contract/shared';
import { newer, type ObjectState, type Together } from './store';
import { useTab } from './tab';

export type ObjectValue = Record<string, unknown> & { id?: string };

/** One of the objects of a page, as it was brought, and what it and its fields are called. */
export interface EditedObject {
  kind: DraftKind;
  object: ObjectValue;
  rowVersion: number;
  label: string;
  titles: Readonly<Record<string, string>>;
}

export interface ObjectEdit {
  value: ObjectValue;
  /** fields typed here and not yet in the draft */
  pending: readonly string[];
  set: (field: string, value: unknown) => void;
  /** makes the draft edit of what was typed, after those on their way; nothing happens when nothing was */
  commit: () => Promise<void>;
  /** sets and commits at once, for choices */
  choose: (field: string, value: unknown) => void;
  errorOf: (field: string) => string | null;
  general: string | null;
  /** fields in which somebody else was faster */
  contested: ObjectState['contested'];
  by: string | null;
  gone: boolean;
  keepMine: () => void;
  takeTheirs: () => void;
  saving: boolean;
}

export interface Edits {
  /** one of the page's objects */
  of(object: EditedObject): ObjectEdit;
  /** edits of several objects that belong together: one request, one act */
  together(parts: readonly Together[], act?: string): Promise<ApiResult<EditResult>>;
}

const NEVER = () => () => undefined;

const idOf = (o: EditedObject) => o.object.id ?? 'organisation';

/**
 * The one way of editing: an object and whatever belongs to it. What is typed stays in the browser until the draft has it,
 * requests go one after the other, and who was faster is told field by field.
 */
export function useEdits(): Edits {
  const { store, about } = useTab();
  // The server knows nothing of what is kept here: the first drawing is the same as its own.
  const here = useSyncExternalStore(
    NEVER,
    () => true,
    () => false,
  );
  return {
    together: (parts, act) => store.together(parts, act),
    of: (edited) => {
      const { kind, object, rowVersion } = edited;
      const of = { kind, id: idOf(edited) };
      if (typeof window !== 'undefined')
        about.set(`${kind} ${of.id}`, {
          title: edited.label,
          path: window.location.pathname + window.location.search,
          titles: edited.titles,
        });
      const state = store.state(of);
      const typed = here ? state.typed : {};
      const base = { object, rowVersion };
      const current = newer(base, state.own);
      const mine = Object.fromEntries(Object.entries(typed).map(([f, t]) => [f, t.value]));
      const contested = Object.keys(state.contested);
      return {
        value: { ...current.object, ...mine },
        pending: Object.keys(typed),
        set: (field, value) => store.type(of, base, field, value),
        choose: (field, value) => {
          store.type(of, base, field, value);
          void store.commit(of, [field]);
        },
        commit: () => store.commit(of),
        errorOf: (field) =>
          Object.entries(state.refused).find(([path]) => path === field || path.startsWith(`${field}.`))?.[1] ?? null,
        general: state.general,
        contested: state.contested,
        by: state.by,
        gone: state.gone,
        keepMine: () => void store.keepMine(of, contested),
        takeTheirs: () => store.giveUp(of, state.gone ? Object.keys(typed) : contested),
        saving: state.sending.size > 0,
      };
    },
  };
}

/** Titles of fields by name, from what the schema knows of them. */
export function useTitles(fields: readonly { field: string; title?: string }[]): Record<string, string> {
  return useMemo(() => Object.fromEntries(fields.map((f) => [f.field, f.title ?? f.field])), [fields]);
}
