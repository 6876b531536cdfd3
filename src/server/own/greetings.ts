import type { MessageSituation } from '@/core/plan/facts/message-situations';
import { entriesAt } from '../state/entries';

/** A greeting of one's own that holds now. */
interface OwnGreeting {
  situation: MessageSituation;
  seconds: number;
  /** the text that was spoken; null: it was recorded */
  said: string | null;
  until: string | null;
}

/** Greetings of a mailbox that hold now, beside those of the plan. */
export async function greetingsOf(mailbox: string): Promise<OwnGreeting[]> {
  return (await entriesAt(Date.now(), { kind: 'greeting', subject: mailbox })).map((e) => ({
    situation: e.value.situation as MessageSituation,
    seconds: e.value.seconds as number,
    said: e.value.said as string | null,
    until: e.until === null ? null : new Date(e.until).toISOString(),
  }));
}
