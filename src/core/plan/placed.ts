/** The order of things that stand in one list by their positions, from the smallest upwards; by id where two are equal. */
export function byPosition(a: { position: number; id: string }, b: { position: number; id: string }): number {
  return a.position - b.position || (a.id < b.id ? -1 : 1);
}
