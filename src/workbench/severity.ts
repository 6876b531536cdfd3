/** How grave a problem is: its word, and the colour that it stands in. */
export const SEVERITY = {
  error: { colour: 'brick', word: 'error' },
  doubt: { colour: 'saffronText', word: 'doubt' },
  note: { colour: 'quiet', word: 'note' },
} as const;
