import { notFound } from 'next/navigation';
import { boardNow } from '../board/board';
import { readCallPage } from '../board/call-page';
import { Refused } from '../access/rights';
import { pageActor } from './reader';

/** The board as it is when the page is asked for, with the queue whose agents are shown. */
export async function boardPage(queue: string) {
  const actor = await pageActor();
  const asked = /^[a-z0-9][a-z0-9-]{0,35}$/.test(queue) ? queue : '';
  return { queue: asked, board: await boardNow(actor, asked) };
}

/** A queue's public page; whoever asks for none that is there is told just that. */
export async function callPage(page: string) {
  try {
    return { page, facts: await readCallPage(page) };
  } catch (e) {
    if (e instanceof Refused) notFound();
    throw e;
  }
}
