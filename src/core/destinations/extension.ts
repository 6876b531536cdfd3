import type { Extension } from '../plan';
import { BUSY, NO_ANSWER, UNREACHABLE, type Cause } from '../routing/cause';
import type { ReasonCode } from '../routing/reasons';
import type { ForwardWhen, Situation } from '../routing/situation';
import type { Behaviour, WayOn } from './offer';

/** An extension rings, unless its person's forwarding or state sends the call on (ENGINE E11). */
export const offerExtension: Behaviour<Extension> = (extension, situation) => {
  const at = stateNow(extension, situation);
  if (at) {
    const way = onward(extension, situation, at.when, 0, at.code, at.sentence, at.cause);
    return { landing: null, code: at.code, sentence: at.sentence, way };
  }
  const label = `${extension.digits} ${extension.name}`;
  const answer = situation.answers?.find((a) => a.id === extension.id);
  const takes = !answer || answer.afterSeconds <= extension.ringSeconds;
  const unanswered = `${extension.name} does not answer within ${extension.ringSeconds} s.`;
  return {
    landing: takes ? { kind: 'extension', id: extension.id, digits: extension.digits, label } : null,
    code: 'rings',
    sentence: `${label} rings for ${extension.ringSeconds} s.`,
    way: onward(extension, situation, 'no answer', extension.ringSeconds, 'no-answer', unanswered, NO_ANSWER),
  };
};

interface StateNow {
  when: ForwardWhen;
  code: ReasonCode;
  sentence: string;
  cause: Cause;
}

/** What keeps the phone from ringing at all; null when it rings. */
function stateNow(extension: Extension, situation: Situation): StateNow | null {
  const { id, name } = extension;
  if (situation.forwarding?.some((f) => f.extension === id && f.when === 'always'))
    return { when: 'always', code: 'forwarded-always', sentence: `${name} forwards every call.`, cause: BUSY };
  if (situation.doNotDisturb?.includes(id))
    return { when: 'busy', code: 'do-not-disturb', sentence: `${name} does not want to be disturbed.`, cause: BUSY };
  if (extension.kind === 'virtual')
    return {
      when: 'unreachable',
      code: 'no-phone',
      sentence: `${name} is virtual: it has no phone to ring.`,
      cause: UNREACHABLE,
    };
  if (situation.off?.includes(id))
    return {
      when: 'unreachable',
      code: 'unreachable',
      sentence: `The phone of ${name} is off or not registered.`,
      cause: UNREACHABLE,
    };
  if (situation.busy?.includes(id))
    return { when: 'busy', code: 'busy', sentence: `${name} is on another call.`, cause: BUSY };
  return null;
}

/** Personal forwarding for the case first, then the mailbox, then the cause (ENGINE E11). */
function onward(
  extension: Extension,
  situation: Situation,
  when: ForwardWhen,
  afterSeconds: number,
  code: ReasonCode,
  sentence: string,
  cause: Cause,
): WayOn {
  const forward = situation.forwarding?.find((f) => f.extension === extension.id && f.when === when);
  const label = when === 'always' ? 'forwarded' : code === 'do-not-disturb' ? 'do not disturb' : when;
  if (forward)
    return {
      when: label,
      afterSeconds,
      to: { type: 'forward', digits: forward.to, owner: extension.id },
      code,
      sentence,
    };
  if (extension.mailbox)
    return { when: label, afterSeconds, to: { type: 'destination', id: extension.mailbox }, code, sentence };
  return { when: label, afterSeconds, to: { type: 'end', outcome: 'failed', cause }, code, sentence };
}
