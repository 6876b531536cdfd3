/* What a field that was just left is still being read as: a form that is sent waits for it. */

const open = new Set<Promise<unknown>>();

/** Takes note of a reading until it is over. */
export function settling(reading: Promise<unknown>): void {
  open.add(reading);
  void reading.finally(() => open.delete(reading));
}

/** Leaves the list that has the focus, if one has, and waits until it says what was chosen. */
export async function settled(): Promise<void> {
  const at = document.activeElement as HTMLElement | null;
  if (at?.getAttribute('role') === 'combobox') at.blur();
  await Promise.all(open);
  // What was read goes into the form before that is looked at.
  await new Promise((done) => setTimeout(done, 0));
}
