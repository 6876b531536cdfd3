import { signIn, signOut } from '@/server/access/accounts';
import { SESSION_COOKIE, cookieAttributes, cookieOf, door } from '@/server/http/door';
import { operations } from '@/server/http/operations';

export const POST = door(operations.signIn, async ({ body, address, request }) => {
  const agent = request.headers.get('user-agent') ?? '';
  const { token, waitsForCode } = await signIn(body.name, body.password, address, agent);
  return Response.json(
    { ok: true, waitsForCode },
    { headers: { 'set-cookie': `${SESSION_COOKIE}=${token}; ${cookieAttributes(request)}` } },
  );
});

export const DELETE = door(operations.signOut, async ({ request }) => {
  const token = cookieOf(request);
  if (token) await signOut(token);
  return Response.json(
    { ok: true },
    { headers: { 'set-cookie': `${SESSION_COOKIE}=; Max-Age=0; ${cookieAttributes(request)}` } },
  );
});
