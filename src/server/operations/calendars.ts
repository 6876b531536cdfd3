import type { calendarFacts } from '@/contract/calendars';
import { Refused } from '../access/rights';
import {
  calendarLinks,
  calendarText,
  dropFeed,
  hoursOfAddress,
  makeAddress,
  readFeed,
  revokeAddress,
  setFeed,
} from '../calendars/links';
import { ask } from '../engine';
import { situationAt } from '../state/situation';
import type { Handlers } from './handler';

const calendar = ({ name, text }: { name: string; text: string }, asFile: boolean) =>
  new Response(text, {
    headers: {
      'content-type': 'text/calendar; charset=utf-8',
      'cache-control': 'no-store',
      ...(asFile ? { 'content-disposition': `attachment; filename*=UTF-8''${encodeURIComponent(`${name}.ics`)}` } : {}),
    },
  });

const gone = () => new Refused(404, 'no-such-object', 'There are no such hours.');

export const calendarHandlers: Handlers<keyof typeof calendarFacts> = {
  calendarFile: async ({ actor, params }) => {
    await ask('one', { reader: actor, kind: 'hours', id: params.id });
    const now = Date.now();
    const found = await ask('calendarOfHours', { id: params.id, of: 'draft', now, situation: await situationAt(now) });
    if (!found) throw gone();
    return calendar(found, true);
  },
  readCalendar: ({ actor, params, file, request }) =>
    ask('calendarReading', { reader: actor, id: params.id, text: file.toString('utf8') }, { signal: request.signal }),
  calendarLinks: ({ actor, params }) => calendarLinks(actor, params.id),
  makeCalendarAddress: ({ actor, params }) => makeAddress(actor, params.id),
  revokeCalendarAddress: ({ actor, params }) => revokeAddress(actor, params.id, params.address),
  subscribedCalendar: async ({ params }) => {
    const found = await calendarText(await hoursOfAddress(params.secret));
    if (!found) throw gone();
    return calendar(found, false);
  },
  setCalendarFeed: ({ actor, params, body }) => setFeed(actor, params.id, body.address),
  readCalendarFeed: ({ actor, params }) => readFeed(actor, params.id),
  dropCalendarFeed: ({ actor, params }) => dropFeed(actor, params.id),
};
