import { turnsOf } from '../turns';

/** So much work with sound runs at once: each piece takes a core. */
export const inTurn = turnsOf(2);
