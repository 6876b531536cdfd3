import { door } from '@/server/http/door';
import { operations } from '@/server/http/operations';
import { giveCode } from '@/server/access/second-factor';
import { Refused } from '@/server/access/rights';
import { cookieOf } from '@/server/http/door';

export const POST = door(operations.signInCode, async ({ body, address, request }) => {
  const token = cookieOf(request);
  if (!token) throw new Refused(401, 'not-signed-in', 'Sign in with name and password first.');
  await giveCode(token, body.code, address);
});
