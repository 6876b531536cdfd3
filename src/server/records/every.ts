import { callFilterSchema } from '@/contract/records';

/** The filter that every call passes. */
export const EVERY_CALL = callFilterSchema.parse({});
