import { door } from '@/server/http/door';
import { operations } from '@/server/http/operations';
import { openApiDocument } from '@/server/http/openapi';

export const GET = door(operations.openapi, async () => openApiDocument());
