/** From outside, to outside, or neither. */
export const WAYS = ['in', 'out', 'inside'] as const;
