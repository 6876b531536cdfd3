'use client';

import type { ReactNode } from 'react';
import { Labelled } from '@/ui/controls';
import { useFocusNote } from '@/ui/workspace';

const NOTES = {
  site: 'Decides which emergency numbers and outbound rules this phone has, and which digits are offered.',
  digits:
    'What colleagues dial. Offered from the free ones of the site’s ranges; any free digits will do. Example: 2150.',
  name: 'Shown on colleagues’ phones when this one calls. Example: Ann Example.',
  kind: 'Person, place (lobby, lift), fax, or virtual: routing only, without a phone.',
  class: 'Which kinds of call this extension may make. Callers refused by it hear that the call is barred.',
  pin: 'Entered to hear messages: digits only, four or more, not the extension, no run, no repeat.',
  email: 'Where a notice of each new message goes. Empty: no mail.',
  number: 'An outside number of its own. Callers reach this extension by it, and it is shown when it calls out.',
  sameAs:
    'Somebody whose rights, teams, shown number, reach plan and mailbox settings the joiner gets. Example: the one who sits beside them.',
  team: 'For rules that name a team, and for whom one may watch.',
  language: 'Of mailbox prompts and mail (BCP 47). Example: sv. Empty: the site’s.',
  place: 'Where the phone stands; told to the emergency service. Example: Berth 2, quayside.',
};

export type NewField = keyof typeof NOTES;

/** A labelled field of the form, whose note is told beside it while it has the focus. */
export function Field({
  field,
  title,
  error,
  children,
}: {
  field: NewField;
  title: string;
  error: string | null;
  children: (common: { id: string; onFocus: () => void; 'aria-invalid'?: true }) => ReactNode;
}) {
  const { onFocus } = useFocusNote(title, NOTES[field]);
  const id = `new-${field}`;
  return (
    <Labelled title={title} htmlFor={id} error={error}>
      {children({ id, onFocus, 'aria-invalid': error ? true : undefined })}
    </Labelled>
  );
}
