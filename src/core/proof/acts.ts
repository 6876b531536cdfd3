import type { Situation } from '../routing';

/** States of a phone that lead its calls elsewhere. */
export const PHONE_STATES = ['busy', 'off', 'doNotDisturb', 'away'] as const;
export type PhoneState = (typeof PHONE_STATES)[number];

/** What somebody does, or what fails, on the way of a call. */
export type Act =
  | {
      type: 'keys';
      keys: string;
      atSeconds: number;
      /** they are an outside number that the caller chose */
      outside?: true;
    }
  | { type: PhoneState; ids: readonly string[] }
  | { type: 'presence'; ids: readonly string[]; state: string }
  | { type: 'trunk down'; ids: readonly string[] };

/** A situation in which some acts happen beside what holds. */
export function holding(situation: Situation, acts: readonly Act[]): Situation {
  if (acts.length === 0) return situation;
  const out = { ...situation };
  for (const act of acts)
    if (act.type === 'keys') {
      const pressed = [...act.keys].map((key, i) => ({ atSeconds: act.atSeconds + i / 10, key }));
      out.keys = [...(out.keys ?? []), ...pressed];
    } else if (act.type === 'presence')
      out.presence = { ...out.presence, ...Object.fromEntries(act.ids.map((id) => [id, act.state])) };
    else if (act.type === 'trunk down')
      out.trunks = [
        ...(out.trunks ?? []).filter((t) => !act.ids.includes(t.id)),
        ...act.ids.map((id) => ({ id, up: false })),
      ];
    else out[act.type] = [...(out[act.type] ?? []), ...act.ids];
  return out;
}

/** What acts have in common where those of several calls are told together. */
export const shapeOfActs = (acts: readonly Act[]): string =>
  acts
    .map((a) =>
      a.type === 'keys'
        ? a.keys.length > 1
          ? 'dialled'
          : `keys ${a.keys}`
        : a.type === 'presence'
          ? `presence ${a.state}`
          : a.type,
    )
    .join();
