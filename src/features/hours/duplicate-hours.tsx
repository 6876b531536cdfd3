'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { v7 as uuid } from 'uuid';
import { Act } from '@/ui/controls';
import { say } from '@/ui/toasts';
import { useEdits } from '@/workbench/edits';
import type { ObjectPageData } from '@/workbench/form-data';

/** Hours like these under another name, which nothing asks yet. */
export function DuplicateHours({ data }: { data: ObjectPageData }) {
  const edits = useEdits();
  const router = useRouter();
  const [busy, setBusy] = useState(false);
  const make = async () => {
    setBusy(true);
    const id = uuid();
    const value = { ...data.object, id, name: `${String(data.object.name)}, copy`.slice(0, 80) };
    const made = await edits.together([{ do: 'add', of: { kind: 'hours', id }, value }], `duplicated ${data.label}`);
    setBusy(false);
    if (made.ok) router.push(`/hours/${id}`);
    else say(made.errors[0]!.sentence);
  };
  return (
    <Act disabled={busy} onClick={() => void make()}>
      Duplicate
    </Act>
  );
}
