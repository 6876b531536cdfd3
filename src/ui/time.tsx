'use client';

/** A moment in the reader's own zone; the zone itself stands in the title. */
export function Time({ iso }: { iso: string }) {
  const at = new Date(iso);
  const text = new Intl.DateTimeFormat('en-GB', {
    day: 'numeric',
    month: 'short',
    year: 'numeric',
    hour: '2-digit',
    minute: '2-digit',
  }).format(at);
  return (
    <time dateTime={iso} title={`${iso} (UTC)`} suppressHydrationWarning>
      {text}
    </time>
  );
}
