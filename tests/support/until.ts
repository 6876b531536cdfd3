/** How long things are waited for: a slow machine proves nothing wrong. */
const SECONDS = 60;
const AGAIN_MS = 100;

type Nothing = false | null | undefined;

/**
 * Waits until something is so, and answers with it.
 * @param why what is said when it never is
 */
export async function until<T>(
  what: () => T | Nothing | Promise<T | Nothing>,
  why: string | (() => string | Promise<string>) = '',
  seconds = SECONDS,
): Promise<T> {
  for (const end = Date.now() + seconds * 1000; Date.now() < end;) {
    const got = await what();
    if (got) return got;
    await new Promise((done) => setTimeout(done, AGAIN_MS));
  }
  throw new Error(`waited in vain: ${typeof why === 'string' ? why : await why()}`);
}
