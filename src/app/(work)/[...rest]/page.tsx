import { notFound } from 'next/navigation';

/** Addresses that lead nowhere: said within the frame, where something can be looked for. */
export default function NoSuchPage(): never {
  notFound();
}
