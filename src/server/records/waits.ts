/** Stretches of waiting that are counted and looked for, in seconds; the last has no end. */
export const WAITS: readonly { from: number; below: number | null; label: string }[] = [0, 5, 10, 20, 30, 60, 120].map(
  (from, i, all) => {
    const below = all[i + 1] ?? null;
    return { from, below, label: below === null ? `${from} s and more` : `${from} to ${below} s` };
  },
);
