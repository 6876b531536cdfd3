'use client';

import { ActLink } from '@/ui/controls';

/** Leads to the public page of a queue or an extension, where it has one. */
export const CallPageLink = ({ page }: { page: unknown }) =>
  typeof page === 'string' && page !== '' ? <ActLink href={`/call/${page}`}>See the page as callers do</ActLink> : null;
