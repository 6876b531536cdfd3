export const SESSION_COOKIE = 'polydrome_session';

/** Attributes of the session's cookie; Secure where a trusted proxy says that the reader came by TLS. */
export function cookieAttributes(request: Request): string {
  const tls = process.env.POLYDROME_TRUST_PROXY === '1' && request.headers.get('x-forwarded-proto') === 'https';
  return `Path=/; HttpOnly; SameSite=Strict${tls ? '; Secure' : ''}`;
}

/** A cookie of a request by its name (RFC 6265, section 5.4); null when it has none. */
export function cookieOf(request: Request, name = SESSION_COOKIE): string | null {
  const found = (request.headers.get('cookie') ?? '').split(';').find((c) => c.trim().startsWith(`${name}=`));
  return found ? found.trim().slice(name.length + 1) : null;
}
