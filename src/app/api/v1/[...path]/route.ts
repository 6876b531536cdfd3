import { serve } from '@/server/http/door';

export const dynamic = 'force-dynamic';

type Context = { params: Promise<{ path: string[] }> };

const answer = async (request: Request, { params }: Context) => serve(request, (await params).path);

export { answer as GET, answer as POST, answer as PUT, answer as DELETE, answer as PATCH };
