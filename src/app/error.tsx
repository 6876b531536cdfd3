'use client';

import { Trouble } from '@/features/frame/trouble';

export default function RootError({ retry }: { retry: () => void }) {
  return <Trouble again={retry} />;
}
