/* What the server drew is known by itself: drawn again, even alike, it is another. */

const numbers = new WeakMap<object, number>();
let drawn = 0;

/** A number of its own for every object that the server drew; fit for keys. */
export function drawingOf(object: object): number {
  const known = numbers.get(object) ?? ++drawn;
  numbers.set(object, known);
  return known;
}
