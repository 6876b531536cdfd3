/** What a number of ours can be. */
export const NUMBER_STATES = ['reserved', 'active', 'porting-in', 'retired'] as const;
