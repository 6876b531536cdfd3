import { mainSite } from '@/core/plan';
import type { Situation } from '@/core/routing';
import { endsOf } from '../ground/ends-of';
import { sightIn, type By, type Given } from '../ground/question';
import { objectPage } from './objects';
import { shortLedger } from './short-ledger';

/* Time switches: the list of them, and one. */

/** All time switches, each with where it leads now. */
export function timeSwitches(given: Given, { reader, now, situation }: By & { now: number; situation: Situation }) {
  const x = given.draft.exchange();
  return sightIn(given.draft, reader).cut(
    shortLedger(
      given,
      reader,
      'timeSwitch',
      (o) => {
        const set = situation.switches?.find((s) => s.id === o.id)?.setting;
        return {
          name: o.name,
          digits: o.digits ?? '',
          site: x.sites.get(o.site)!.name,
          setting: set && set !== 'by hours' ? `${set}, by hand` : o.hours ? 'by its hours' : 'always open',
          hours: o.hours ? x.hours.get(o.hours)!.name : '',
          now: endsOf(x, o.id, now, situation),
          fax: o.fax ? 'for fax' : '',
        };
      },
      ['name', 'site', 'hours', 'open', 'closed'],
      { site: mainSite(given.draft.plan)?.id },
    ),
  );
}

/** One time switch, with the service codes that set it. */
export function timeSwitchPage(given: Given, { reader, id }: By & { id: string }) {
  const data = objectPage(given, { kind: 'timeSwitch', id, reader });
  if (!data) return null;
  const sight = sightIn(given.draft, reader);
  const site = given.draft.plan.sites.find((s) => s.id === data.object.site);
  return {
    data,
    zone: site?.zone ?? null,
    codes: sight
      .list('serviceCode')
      .filter((c) => c.timeSwitch === id)
      .map((c) => ({ id: c.id, digits: c.digits, name: c.name })),
    isLive: given.live.plan.timeSwitches.some((s) => s.id === id),
  };
}
