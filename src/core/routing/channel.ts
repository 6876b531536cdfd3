import type { Trunk } from '../plan';

/** What is known of the channels of a trunk: which are taken, how many, and which was chosen last. */
export interface ChannelState {
  inUse?: number;
  busyChannels?: readonly number[];
  lastChannel?: number;
}

/**
 * The channel a call takes on a channelised trunk (ENGINE E7), from 1. At least one must be free. Channels not named are
 * taken from 1 up, or from the top where the choice is the highest. A rotating choice goes on from the channel chosen last.
 */
export function freeChannel(trunk: Pick<Trunk, 'channels' | 'channelChoice'>, state: ChannelState = {}): number {
  const { channels, channelChoice } = trunk;
  const down = channelChoice === 'highest free' || channelChoice === 'rotating down';
  const order = Array.from({ length: channels }, (_, i) => (down ? channels - i : i + 1));
  const busy = new Set(state.busyChannels ?? order.slice(0, state.inUse ?? 0));
  const start =
    channelChoice.startsWith('rotating') && state.lastChannel !== undefined ? order.indexOf(state.lastChannel) + 1 : 0;
  for (let i = 0; i < channels; i++) {
    const channel = order[(start + i) % channels]!;
    if (!busy.has(channel)) return channel;
  }
  throw new RangeError('no channel is free');
}
