'use client';

import { Trouble } from '@/features/frame/trouble';

export default function WorkError({ retry }: { retry: () => void }) {
  return <Trouble again={retry} />;
}
