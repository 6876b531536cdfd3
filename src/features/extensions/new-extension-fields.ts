import type { UseFormReturn } from 'react-hook-form';
import { formFields, type FormFields } from '@/workbench/form-fields';
import type { Typed } from './new-extension-data';

const NOTES: Partial<Record<keyof Typed, string>> = {
  site: 'Decides which emergency numbers and outbound rules this phone has, and which digits are offered.',
  digits:
    'What colleagues dial. Offered from the free ones of the site’s ranges; any free digits will do. Example: 2150.',
  name: 'Shown on colleagues’ phones when this one calls. Example: Ann Example.',
  kind: 'Person, place (lobby, lift), fax, or routing only: digits that lead calls on, without a phone.',
  class: 'Which kinds of call this extension may make. Callers refused by it hear that the call is barred.',
  pin: 'Entered to hear messages: digits only, four or more, not the extension, no run, no repeat. It is never kept in this browser: type it anew when you come back.',
  email: 'Where a notice of each new message goes. Empty: no mail.',
  number: 'An outside number of its own. Callers reach this extension by it, and it is shown when it calls out.',
  sameAs:
    'Somebody whose rights, teams, shown number, reach plan and mailbox settings the joiner gets. Example: the one who sits beside them.',
  team: 'For rules that name a team, and for whom one may watch.',
  language: 'Of mailbox prompts and mail. Empty: the site’s.',
  place: 'Where the phone stands; told to the emergency service. Example: Berth 2, quayside.',
};

/** The fields of the form for a new extension. */
export const newExtensionFields = (form: UseFormReturn<Typed>): FormFields<Typed> =>
  formFields(form, { prefix: 'new', notes: NOTES });
