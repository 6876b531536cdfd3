import type { Extension } from '../plan';
import { BUSY, LINK_FULL, UNREACHABLE, type Cause } from '../exchange/cause';
import { linkObstacle } from '../exchange/link';
import type { ReasonCode } from '../exchange/reasons';
import { isNamed, type Situation } from '../exchange/situation';
import type { Moment } from './offer';

/** What keeps a phone from ringing. */
export interface PhoneObstacle {
  when: 'busy' | 'unreachable' | 'do not disturb';
  code: ReasonCode;
  sentence: string;
  cause: Cause;
}

/** Why the phone of an extension can't ring now, whatever its owner's wishes; null when it can. */
export function phoneObstacle(extension: Extension, moment: Moment): PhoneObstacle | null {
  if (isNamed(moment.situation.doNotDisturb, extension))
    return {
      when: 'do not disturb',
      code: 'do-not-disturb',
      sentence: `${extension.name} does not want to be disturbed.`,
      cause: BUSY,
    };
  return deviceObstacle(extension, moment, extension.callWaiting);
}

/** The same without what the owner wishes: no do not disturb, and call waiting as told. */
export function deviceObstacle(
  extension: Extension,
  moment: Pick<Moment, 'exchange' | 'situation' | 'fromSite'>,
  callWaiting: boolean,
): PhoneObstacle | null {
  const { situation } = moment;
  const { name } = extension;
  const none = (code: ReasonCode, sentence: string): PhoneObstacle => ({
    when: 'unreachable',
    code,
    sentence,
    cause: UNREACHABLE,
  });
  if (extension.kind === 'virtual') return none('no-phone', `${name} is virtual: it has no phone to ring.`);
  if (isNamed(situation.off, extension)) return none('unreachable', `The phone of ${name} is off or not registered.`);
  if (isNamed(situation.away, extension)) return none('unreachable', `${name} is away from every phone.`);
  const busy = busyWith(extension, situation, callWaiting);
  if (busy) return { when: 'busy', code: 'busy', sentence: busy, cause: BUSY };
  const link = linkObstacle(moment.exchange, situation, moment.fromSite, extension.site);
  return link
    ? { when: 'unreachable', code: 'link-full', sentence: `The call can't reach ${name}: ${link}.`, cause: LINK_FULL }
    : null;
}

/** How many of an extension's lines are in use. */
const linesInUse = (extension: Extension, situation: Situation): number =>
  situation.lines?.find((l) => l.extension === extension.id)?.inUse ?? 0;

/** Why an extension takes no further call (ENGINE E15); null while a line is free and call waiting is wanted. */
function busyWith(extension: Extension, situation: Situation, callWaiting: boolean): string | null {
  const { name, lines } = extension;
  const inUse = linesInUse(extension, situation);
  if (isNamed(situation.busy, extension)) return `${name} is on another call.`;
  if (inUse >= lines)
    return `${lines === 1 ? 'The line' : `All ${lines} lines`} of ${name} ${lines === 1 ? 'is' : 'are'} in use.`;
  return inUse > 0 && !callWaiting ? `${name} is on another call and wants no call waiting.` : null;
}

/** Whether a call waits while its owner speaks. */
export const isWaiting = (extension: Extension, moment: Pick<Moment, 'situation'>): boolean =>
  linesInUse(extension, moment.situation) > 0;

/** Whether somebody answers within some seconds: everybody does unless the situation says later. */
export function answersWithin(moment: Pick<Moment, 'situation'>, id: string, seconds: number): boolean {
  const answer = moment.situation.answers?.find((a) => a.id === id);
  return !answer || answer.afterSeconds <= seconds;
}
