/** How a carrier takes numbers. */
export const WRITTEN_FORMS = ['plus', 'digits', 'national', 'significant', 'subscriber', 'private'] as const;
