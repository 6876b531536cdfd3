import type { ReactNode } from 'react';
import { Frame } from '@/features/frame/frame';
import { frameData } from '@/server/pages/frame';

export const dynamic = 'force-dynamic';

export default async function WorkLayout({ children }: { children: ReactNode }) {
  return <Frame data={await frameData()}>{children}</Frame>;
}
