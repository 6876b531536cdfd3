/** What people ask: who calls, what is dialled, when (LOOK: the Ask line). */
export * from './when';
export * from './caller';
export * from './question';
export * from './split';
export * from './dial-to';
