export const TRUNK_KINDS = ['sip-registration', 'sip-peer', 'isdn'] as const;

/** How delivered digits are to be read, after the head was put in front. */
export const DELIVERED_FORMS = ['plus', 'digits', 'national', 'significant', 'subscriber', 'private'] as const;
