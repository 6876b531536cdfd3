import type { Extension, Site, Trunk } from '../plan';
import { activeNumber, written } from './caller-id';
import type { DialRule } from '../exchange/context';
import { ending, refTo, type Run } from './run';
import type { Ending } from '../exchange/answer';
import { chooseTrunk } from './trunks';

/**
 * An emergency call (ENGINE E4): the site's own list of trunks, never another country's, the bare number, no class and no
 * outbound rule.
 */
export function emergencyCall(
  run: Run,
  rule: Extract<DialRule, { type: 'emergency' }>,
  extension: Extension,
  site: Site,
): Ending {
  const base = { rule: 'emergency', kind: 'emergency' as const };
  run.step(
    'emergency',
    rule.test ? 'emergency-test' : 'emergency',
    `${rule.number} is ${rule.test ? 'the test code of the emergency service' : 'an emergency number'} in ${site.country}: no class, no outbound rule and no PIN apply.`,
    {
      object: refTo('site', site),
      in: rule.form,
      out: rule.number,
    },
  );
  const choice = chooseTrunk(run, emergencyTrunks(run, site), {
    cameBy: null,
    fromSite: null,
    transit: false,
    emergency: true,
  });
  if ('ended' in choice) {
    run.step('emergency', 'emergency-alarm', `No trunk carried the emergency call; ${site.name} raises an alarm.`, {
      object: refTo('site', site),
    });
    return ending({ ...base, outcome: 'failed', cause: choice.ended });
  }
  const { trunk } = choice;
  const shown = callbackNumber(run, extension, site, trunk);
  const told = site.emergencyNotify.length;
  const notice = `${told === 0 ? 'Nobody is named to be' : `${told} ${told === 1 ? 'person is' : 'people are'}`} told of this call.`;
  run.step('emergency', 'emergency-notice', notice, { object: refTo('site', site) });
  const where = extension.place || site.address;
  run.step('end', 'call-ends', `${trunk.name} is sent ${rule.number}${where ? `, place ${where}` : ''}.`, {
    object: refTo('trunk', trunk),
    out: rule.number,
  });
  return ending({
    ...base,
    outcome: 'routed',
    lands: {
      kind: 'outside',
      id: trunk.id,
      digits: rule.number,
      label: `Emergency ${rule.number} through ${trunk.name}`,
    },
    trunk: trunk.id,
    digitsSent: rule.number,
    shownNumber: shown,
  });
}

/** The site's list, its own trunks first; a trunk of another country is left out and said so. */
function emergencyTrunks(run: Run, site: Site): string[] {
  const trunks = site.emergencyTrunks.map((id) => run.exchange.trunks.get(id)!);
  const countryOf = (t: Trunk) => run.exchange.sites.get(t.site)!.country;
  const foreign = trunks.filter((t) => countryOf(t) !== site.country);
  if (foreign.length > 0) {
    const doubt = `${foreign.map((t) => t.name).join(', ')} in the emergency list of ${site.name} ends in another country and is never used for it.`;
    run.doubts.push(doubt);
    run.step('emergency', 'emergency-other-country', doubt, { object: refTo('site', site) });
  }
  const home = trunks.filter((t) => countryOf(t) === site.country);
  return [...home.filter((t) => t.site === site.id), ...home.filter((t) => t.site !== site.id)].map((t) => t.id);
}

/** Callback number of the phone's place, else of the site, else its main number; the trunk's own where it owns none of it. */
function callbackNumber(run: Run, extension: Extension, site: Site, trunk: Trunk): string | null {
  const at = (id: string | null) => activeNumber(run, id);
  const callback = at(extension.emergencyCallback) ?? at(site.emergencyCallback);
  const wanted = callback ?? at(site.mainNumber);
  if (wanted && wanted.trunk === trunk.id) {
    const text = written(run, wanted.e164, trunk);
    const back = callback
      ? `calls back to it reach ${extension.name} for 60 minutes`
      : 'a main number: calls back to it go their usual way, with a mark';
    run.step('callerId', 'emergency-shown', `Shows ${text}; ${back}.`, { out: text });
    return text;
  }
  const own = at(trunk.ownNumber);
  const text = own ? written(run, own.e164, trunk) : null;
  const doubt = wanted
    ? `${trunk.name} does not own the callback number ${wanted.e164}; it shows ${text ?? 'no number'} instead.`
    : `${site.name} has no callback number; ${trunk.name} shows ${text ?? 'no number'}.`;
  run.doubts.push(doubt);
  run.step('callerId', 'emergency-shown-trunk', doubt, { out: text, object: refTo('trunk', trunk) });
  return text;
}
