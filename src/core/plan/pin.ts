const LEAST = 4;
const MOST = 16;

/**
 * Why a mailbox PIN is refused, in a sentence; null when it is good: digits only, `least` or more, not the extension (or part
 * of it, either way round), not a run (1234, 9876) and not a repeat (1111, 1212).
 */
export function pinRefusal(pin: string, extensionDigits: string | null, least = LEAST): string | null {
  if (!/^[0-9]*$/.test(pin)) return 'A PIN has digits only: callers enter it on a keypad.';
  if (pin.length < least) return `A PIN has at least ${least} digits.`;
  if (pin.length > MOST) return `A PIN has at most ${MOST} digits.`;
  if (extensionDigits !== null && (pin === extensionDigits || pin === [...extensionDigits].reverse().join('')))
    return 'The PIN is the extension: the first thing anybody tries.';
  const steps = [...pin].slice(1).map((c, i) => (Number(c) - Number(pin[i]) + 10) % 10);
  if (steps.every((s) => s === 1) || steps.every((s) => s === 9))
    return `${pin.slice(0, 4)}… is a run; take digits that do not follow each other.`;
  if (repeats(pin)) return 'The PIN only repeats itself; take digits that differ.';
  return null;
}

/** Whether a text is one piece of up to half its length, over and over. */
function repeats(text: string): boolean {
  return Array.from({ length: Math.floor(text.length / 2) }, (_, i) => i + 1).some(
    (n) => text.length % n === 0 && text === text.slice(0, n).repeat(text.length / n),
  );
}
