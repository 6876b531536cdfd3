'use client';

import { useRouter } from 'next/navigation';
import { useCallback, useMemo, useRef, useState } from 'react';
import type { DraftKind } from '@/core/plan';
import { call, type ApiErrors } from './api';
import { useKept } from '@/ui/kept';

export type ObjectValue = Record<string, unknown> & { id?: string };

interface KeptEdit {
  /** the row version the fields were typed against */
  rowVersion: number;
  fields: Record<string, unknown>;
}

export interface Conflict {
  mine: Record<string, unknown>;
  theirs: ObjectValue | null;
  rowVersion: number | null;
  sentence: string;
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
  conflict: Conflict | null;
  keepMine: () => void;
  takeTheirs: () => void;
  saving: boolean;
}

const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);

/**
 * One object being edited: what is typed stays in the browser until it is valid, then goes to the draft; somebody else's
 * edit in between is shown beside one's own.
 */
export function useObjectEdit(account: string, kind: DraftKind, object: ObjectValue, rowVersion: number): ObjectEdit {
  const router = useRouter();
  const id = object.id ?? 'organisation';
  const [kept, setKept] = useKept<KeptEdit>(`${account} ${kind} ${id}`);
  const [base, setBase] = useState({ object, rowVersion });
  const [errors, setErrors] = useState<ApiErrors['errors']>([]);
  const [conflict, setConflict] = useState<Conflict | null>(null);
  const [saving, setSaving] = useState(false);
  // The newer of what the page brought and what our own last edit made of it.
  const current = rowVersion >= base.rowVersion ? { object, rowVersion } : base;
  const value = useMemo(() => ({ ...current.object, ...kept?.fields }), [current.object, kept]);

  // One after the other: a second choice made while the first is on its way stands on what the first has made.
  const queue = useRef(Promise.resolve());
  const own = useRef<{ object: ObjectValue; rowVersion: number } | null>(null);

  const sendNow = useCallback(
    async (fields: Record<string, unknown>, seen: ObjectValue, seenVersion: number) => {
      const mine = own.current && own.current.rowVersion > seenVersion ? own.current : null;
      // Leaving a field by Enter and then by Tab sends one edit.
      if (mine && Object.entries(fields).every(([f, v]) => same(v, mine.object[f]))) return;
      const version = mine ? mine.rowVersion : seenVersion;
      const next = { ...(mine ? mine.object : seen), ...fields };
      setSaving(true);
      const made = await call('edit', { body: { edits: [{ kind, id, rowVersion: version, value: next }] } });
      setSaving(false);
      if (made.ok) {
        setErrors([]);
        setConflict(null);
        own.current = { object: next, rowVersion: made.value.rowVersions[id]! };
        setBase(own.current);
        // What was typed while this was on its way stays, and now stands on what this made.
        setKept((now) => {
          const left = Object.entries(now?.fields ?? {}).filter(([f, v]) => !(f in fields) || !same(v, fields[f]));
          return left.length > 0 ? { rowVersion: own.current!.rowVersion, fields: Object.fromEntries(left) } : null;
        });
        router.refresh();
      } else if (made.status === 409) {
        const { current: theirs = null, rowVersion: theirVersion = null } = made.detail;
        setConflict({
          mine: fields,
          theirs: theirs as ObjectValue | null,
          rowVersion: theirVersion,
          sentence: made.errors[0]!.sentence,
        });
      } else setErrors(made.errors.map((e) => ({ ...e, path: e.path.replace(/^edits\.0\.value\.?/, '') })));
    },
    [id, kind, router, setKept],
  );
  const send = (fields: Record<string, unknown>, seen: ObjectValue, seenVersion: number) => {
    queue.current = queue.current.then(() => sendNow(fields, seen, seenVersion));
    return queue.current;
  };

  const fieldsWith = (field: string, v: unknown): Record<string, unknown> => {
    const fields = { ...kept?.fields, [field]: v };
    if (same(v, current.object[field])) delete fields[field];
    return fields;
  };
  const keep = (fields: Record<string, unknown>) => {
    setKept(Object.keys(fields).length > 0 ? { rowVersion: kept?.rowVersion ?? current.rowVersion, fields } : null);
    setErrors((old) => old.filter((e) => !(e.path.split('.')[0]! in fields)));
  };

  return {
    value,
    pending: Object.keys(kept?.fields ?? {}),
    set: (field, v) => keep(fieldsWith(field, v)),
    choose: (field, v) => {
      const fields = fieldsWith(field, v);
      keep(fields);
      if (Object.keys(fields).length > 0) void send(fields, current.object, kept?.rowVersion ?? current.rowVersion);
    },
    commit: async () => {
      if (!kept || conflict) return;
      await send(kept.fields, current.object, kept.rowVersion);
    },
    errorOf: (field) => errors.find((e) => e.path === field || e.path.startsWith(`${field}.`))?.sentence ?? null,
    general: errors.find((e) => !(e.path.split('.')[0]! in value))?.sentence ?? null,
    conflict,
    keepMine: () => {
      if (!conflict?.theirs || conflict.rowVersion === null) return;
      setKept({ rowVersion: conflict.rowVersion, fields: conflict.mine });
      void send(conflict.mine, conflict.theirs, conflict.rowVersion);
    },
    takeTheirs: () => {
      setKept(null);
      setErrors([]);
      setConflict(null);
      router.refresh();
    },
    saving,
  };
}
