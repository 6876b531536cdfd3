/** What is asked before somebody else's work is taken back. */
export const askOfColleague = (act: { name: string; who: string }) => ({
  title: `${act.who} did this`,
  body: `“${act.name}” is ${act.who}’s edit, not yours. It is undone in the draft for everybody, and ${act.who} is told that you did it.`,
  choices: [{ id: 'undo' as const, words: 'Undo it and tell them', look: 'main' as const }],
});
