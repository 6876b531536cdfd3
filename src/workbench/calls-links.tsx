'use client';

import { ActLink } from '@/ui/controls';

/** Leads to the calls of something, and to their traffic, for whoever may see calls. */
export function CallsLinks({
  rights,
  filter,
  traffic = false,
  words = 'Its calls',
}: {
  rights: readonly string[];
  filter: Record<string, string>;
  traffic?: boolean;
  words?: string;
}) {
  if (!rights.includes('seeCalls')) return null;
  const query = new URLSearchParams(filter);
  return (
    <>
      <ActLink href={`/calls?${query}`}>{words}</ActLink>
      {traffic ? <ActLink href={`/calls/traffic?${query}`}>Its traffic</ActLink> : null}
    </>
  );
}
