import { whyNot } from '../digits';
import { numberSpaceOf, type Extension } from '../plan';
import type { Ending, NotTaken } from '../exchange/answer';
import { REFUSED } from '../exchange/cause';
import type { DialContext, DialRule } from '../exchange/context';
import { ending, refTo, type Run } from './run';
import { walk } from './walk';

/** A call to something inside that has digits of its own (ENGINE E4, E6). */
export function callInside(
  run: Run,
  extension: Extension,
  rule: Extract<DialRule, { type: 'destination' }>,
  digits: string,
  context: DialContext,
): Ending {
  const notTaken = run.told ? emergencyDiffers(context, digits) : [];
  const refused = internalRefused(run, extension, digits, notTaken);
  if (refused) return { ...refused, rule: rule.id };
  const end = walk(
    run,
    { type: 'destination', id: rule.id },
    { trunk: null, calling: null, phone: extension, site: extension.site },
  );
  const shown = end.trunk === null ? shownInside(run, extension, end.lands?.id ?? rule.id, rule.id) : end.shownNumber;
  return { ...end, kind: end.kind ?? 'internal', rule: end.rule ?? rule.id, shownNumber: shown };
}

/** Why an extension may make no internal call, or no such call without a PIN; null when it may (ENGINE E6). */
export function internalRefused(
  run: Run,
  extension: Extension,
  digits: string | null,
  notTaken: NotTaken[] = [],
): Ending | null {
  const cos = run.exchange.classes.get(extension.class)!;
  const object = refTo('class', cos);
  const { allow, pin } = cos.rights.internal;
  const refused = ending({ outcome: 'refused', kind: 'internal', cause: REFUSED });
  if (!allow) {
    run.step('right', 'internal-refused', `Class ${cos.name} refuses internal calls.`, { object, notTaken });
    return refused;
  }
  if (pin && run.situation.pin === undefined) {
    run.step('right', 'pin-missing', `Class ${cos.name} asks for a PIN for internal calls; none was entered.`, {
      object,
      notTaken,
    });
    return refused;
  }
  const what = digits === null ? '' : `${digits} is inside; `;
  run.step(
    'right',
    pin ? 'pin-given' : 'internal-allowed',
    `${what}class ${cos.name} allows internal calls${pin ? ' with a PIN; it was entered' : ''}.`,
    { object, in: digits, notTaken },
  );
  return null;
}

/** The digits that colleagues see: behind the site code in another number space, so that a call back works (ENGINE E4). */
function shownInside(run: Run, extension: Extension, landed: string, dialled: string): string {
  const { exchange } = run;
  const there = exchange.destinations.get(landed) ?? exchange.destinations.get(dialled)!;
  const { plan } = exchange;
  if (!('site' in there.object) || numberSpaceOf(plan, there.object.site) === numberSpaceOf(plan, extension.site))
    return extension.digits;
  return (exchange.sites.get(extension.site)!.siteCode ?? '') + extension.digits;
}

/** Why emergency numbers did not take some digits. */
export function emergencyDiffers(context: DialContext, digits: string): NotTaken[] {
  const why = whyNot(context.emergency.automaton, digits);
  return why ? [{ rule: 'emergency', label: 'Emergency numbers', code: 'digits-differ', why }] : [];
}
