import type { holidayFacts } from '@/contract/holidays';
import { ask } from '../engine';
import type { Handlers } from './handler';

export const holidayHandlers: Handlers<keyof typeof holidayFacts> = {
  publicHolidays: ({ query: { country, region }, request }) =>
    ask(
      'publicHolidaysOf',
      { country, region: region || null, year: new Date().getUTCFullYear() },
      { signal: request.signal },
    ),
};
