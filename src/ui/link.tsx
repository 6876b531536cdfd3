'use client';

import NextLink from 'next/link';
import type { ComponentProps } from 'react';

/** A link to another page. Pages are made anew with every edit: what nobody asked for is not fetched ahead. */
export function Link(props: ComponentProps<typeof NextLink>) {
  return <NextLink prefetch={false} {...props} />;
}
