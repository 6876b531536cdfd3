/** What each operation of the contract does. */
import { accessHandlers } from './access';
import { calendarHandlers } from './calendars';
import { callHandlers } from './calls';
import type { Handlers } from './handler';
import { holidayHandlers } from './holidays';
import { numberHandlers } from './numbers';
import { peopleHandlers } from './people';
import { planHandlers } from './plan';
import { rehearsalHandlers } from './rehearsals';
import { scriptHandlers } from './scripts';
import { soundHandlers } from './sounds';
import { stateHandlers } from './state';
import { workHandlers } from './work';

export const handlers: Handlers = {
  ...planHandlers,
  ...callHandlers,
  ...peopleHandlers,
  ...numberHandlers,
  ...accessHandlers,
  ...stateHandlers,
  ...holidayHandlers,
  ...calendarHandlers,
  ...scriptHandlers,
  ...rehearsalHandlers,
  ...soundHandlers,
  ...workHandlers,
};
