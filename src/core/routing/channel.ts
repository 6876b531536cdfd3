import type { Trunk } from '../plan';

/** What is known of the channels of a trunk: which are taken, how many, and which was chosen last. */
export interface ChannelState {
  inUse?: number;
  busyChannels?: readonly number[];
  lastChannel?: number;
}

const named = ({ channels }: Pick<Trunk, 'channels'>, { busyChannels = [] }: ChannelState) =>
  new Set(busyChannels.filter((c) => c <= channels));

/** How many channels are in use: as many as are told, and at least those named busy (ENGINE E7). */
export function channelsInUse(trunk: Pick<Trunk, 'channels'>, state: ChannelState = {}): number {
  return Math.max(state.inUse ?? 0, named(trunk, state).size);
}

/**
 * The channel a call takes on a channelised trunk (ENGINE E7), from 1; null when none is free. Channels in use but not named
 * are taken from 1 up, or from the top where the choice is the highest. A rotating choice goes on from the one chosen last.
 */
export function freeChannel(trunk: Pick<Trunk, 'channels' | 'channelChoice'>, state: ChannelState = {}): number | null {
  const { channels, channelChoice } = trunk;
  const down = channelChoice === 'highest free' || channelChoice === 'rotating down';
  const order = Array.from({ length: channels }, (_, i) => (down ? channels - i : i + 1));
  const busy = named(trunk, state);
  for (const channel of order) if (busy.size < (state.inUse ?? 0)) busy.add(channel);
  const start =
    channelChoice.startsWith('rotating') && state.lastChannel !== undefined ? order.indexOf(state.lastChannel) + 1 : 0;
  for (let i = 0; i < channels; i++) {
    const channel = order[(start + i) % channels]!;
    if (!busy.has(channel)) return channel;
  }
  return null;
}
