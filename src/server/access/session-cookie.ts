export const SESSION_COOKIE = 'polydrome_session';

/** Attributes of the session's cookie; Secure where a trusted proxy says that the reader came by TLS. */
export function cookieAttributes(request: Request): string {
  const tls = process.env.POLYDROME_TRUST_PROXY === '1' && request.headers.get('x-forwarded-proto') === 'https';
  return `Path=/; HttpOnly; SameSite=Strict${tls ? '; Secure' : ''}`;
}

export function cookieOf(request: Request): string | null {
  const found = (request.headers.get('cookie') ?? '').split(/;\s*/).find((c) => c.startsWith(`${SESSION_COOKIE}=`));
  return found ? found.slice(SESSION_COOKIE.length + 1) : null;
}
