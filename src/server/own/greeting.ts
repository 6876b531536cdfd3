import type { SoundKnown } from '@/contract/sounds';
import type { MessageSituation } from '@/core/plan/facts/message-situations';
import { pinRefusal } from '@/core/plan';
import { recordHistory } from '../access/history';
import { Refused, type Actor } from '../access/rights';
import { keepSecret } from '../access/secrets';
import { writing } from '../db/pool';
import { ask } from '../engine';
import { addEntry, endEntries, entriesAt } from '../state/entries';
import { untilOf } from '../state/forwarding';
import { madeReady } from '../sound/make';
import { spokenText } from '../sound/speak';
import { factsOfSound, keepSound, wavOfSound } from '../sound/store';
import { inTurn } from '../sound/turn';
import { ownMailbox, ownOf } from './person';

/* The greetings of one's own mailbox and its PIN: set by oneself, at once. */

/** Keeps a recording for a greeting. */
export async function keepOwnSound(actor: Actor, file: Buffer, signal: AbortSignal): Promise<SoundKnown> {
  await ownOf(actor);
  return keepSound(await madeReady(file, { field: 'file', signal }), actor.account);
}

/** Lets callers hear a greeting of one's own in a case, or that of the plan again. */
export async function setGreeting(
  actor: Actor,
  id: string,
  input: { situation: MessageSituation; greeting: { sound: string } | { text: string } | null; until: string | null },
  signal: AbortSignal,
): Promise<void> {
  const { mailbox, zone, language } = await ownMailbox(actor, id);
  const until = untilOf(input.until, zone);
  const sound = input.greeting && (await soundFor(actor, input.greeting, language, signal));
  await writing(async (c) => {
    await endEntries(c, { kind: 'greeting', subject: id, with: { key: 'situation', is: input.situation } });
    if (sound)
      await addEntry(
        c,
        actor,
        {
          kind: 'greeting',
          subject: id,
          value: { situation: input.situation, sound: sound.id, seconds: sound.seconds, said: sound.facts.said },
        },
        { since: new Date(), until },
      );
    await recordHistory(c, actor, {
      action: sound ? 'greeting-set' : 'greeting-ended',
      object: id,
      of: mailbox.name,
      detail: { when: input.situation, ...(until ? { until: until.toISOString() } : {}) },
    });
  });
}

async function soundFor(
  actor: Actor,
  greeting: { sound: string } | { text: string },
  language: string,
  signal: AbortSignal,
): Promise<SoundKnown> {
  if ('sound' in greeting) return factsOfSound(greeting.sound);
  const spoken = await inTurn(signal, () => spokenText(greeting.text, language, 150));
  const ready = await madeReady(spoken, { field: 'greeting', signal });
  return keepSound({ ...ready, facts: { ...ready.facts, said: greeting.text } }, actor.account);
}

/** The sound of a greeting of one's own. */
export async function greetingSound(actor: Actor, id: string, situation: MessageSituation): Promise<Uint8Array> {
  await ownMailbox(actor, id);
  const found = (await entriesAt(Date.now(), { kind: 'greeting', subject: id })).find(
    (e) => e.value.situation === situation,
  );
  if (!found) throw new Refused(404, 'no-greeting', 'Callers hear the greeting of the plan.', 'situation');
  return wavOfSound(found.value.sound as string, 16_000);
}

/** Sets the PIN of one's own mailbox. */
export async function setOwnPin(actor: Actor, id: string, pin: string): Promise<void> {
  const { mailbox, pinLeastDigits } = await ownMailbox(actor, id);
  for (const digits of [...(await ask('digitsOfMailbox', { id })), null]) {
    const why = pinRefusal(pin, digits, pinLeastDigits);
    if (why) throw new Refused(422, 'weak-pin', why, 'pin');
  }
  await writing(async (c) => {
    await keepSecret(c, actor, id, 'pin', pin);
    await recordHistory(c, actor, { action: 'pin-set', object: id, of: mailbox.name });
  });
}
