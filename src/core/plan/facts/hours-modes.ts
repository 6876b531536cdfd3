/** What hours can say of a moment; an exception counts as open or closed. */
export const HOURS_MODES = ['open', 'closed', 'holiday', 'notice'] as const;
