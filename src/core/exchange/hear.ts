import type { Exchange } from './exchange';

/** Seconds a prompt takes to hear; none for no prompt. */
export function promptSeconds(exchange: Exchange, id: string | null): number {
  return id ? exchange.prompts.get(id)!.seconds : 0;
}

/** A prompt in a sentence. */
export function spoken(exchange: Exchange, id: string | null): string {
  return id ? `“${exchange.prompts.get(id)!.name}”` : 'nothing';
}
