/** Codecs that trunks and pairs of sites can speak. */
export const CODECS = ['G.711A', 'G.711U', 'G.722', 'G.726-32', 'G.729', 'iLBC-20', 'iLBC-30', 'opus-32'] as const;
