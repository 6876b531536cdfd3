import type { DayOrder } from '@/core/plan';
import type { FORWARD_WHEN } from '@/core/exchange';
import type { MessageSituation } from '@/core/plan/facts/message-situations';
import type { Face } from '@/ui/kinds';

/** A step as it stands on the page. */
export interface StepWords {
  rings: string;
  label: string;
  together: boolean;
  seconds: number;
  keyToTake: boolean;
}

export interface OwnPhone {
  id: string;
  digits: string;
  name: string;
  ringSeconds: number;
  mailbox: string | null;
  numbers: string[];
  /** the reach plan that administrators made; it holds unless there is an own one */
  planned: {
    name: string;
    steps: { label: string; together: boolean; seconds: number; outside: boolean }[];
    end: string | null;
  } | null;
  own: { showsCaller: boolean; steps: StepWords[] } | null;
  forwarding: { when: (typeof FORWARD_WHEN)[number]; to: string; until: string | null }[];
  /** of a phone that takes calls of queues */
  agent: { queues: string[]; permanent: boolean; signedIn: boolean; paused: string | null } | null;
  /** where a colleague’s call ends now, in order, when nobody picks up */
  ends: string[];
}

export interface OwnMailbox {
  id: string;
  name: string;
  on: boolean;
  email: string | null;
  group: boolean;
  pinSet: boolean;
  greetings: { situation: MessageSituation; seconds: number; said: string | null; until: string | null }[];
}

/** Everything that a person’s own page shows. */
export interface OwnData {
  account: string;
  name: string;
  signIn: string;
  secondFactor: boolean;
  dayOrder: DayOrder;
  faces: Readonly<Record<string, Face>>;
  /** null: a second factor comes first */
  own:
    | null
    | 'gone'
    | {
        organisation: string;
        zone: string;
        states: { id: string; label: string }[];
        presence: { state: string; until: string | null } | null;
        phones: OwnPhone[];
        mailboxes: OwnMailbox[];
        watched: { person: string; name: string; digits: string; state: string | null }[];
        calls: {
          started: string;
          calling: string | null;
          shown: string;
          answered: boolean;
          inMailbox: boolean;
          seconds: number;
        }[];
      };
}
