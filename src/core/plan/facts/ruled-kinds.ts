import { CALL_KINDS, type CallKind } from '../../numbers/kinds';

/** Kinds of call a class can say something about; emergency calls obey no class (ENGINE E4). */
export const RULED_KINDS = CALL_KINDS.filter((k): k is Exclude<CallKind, 'emergency'> => k !== 'emergency');
export type RuledKind = (typeof RULED_KINDS)[number];
