import { isUnowned } from '../access/first-owner';

/** Whether the first page may be seen: nobody owns the organisation yet. */
export const welcomeData = (): Promise<boolean> => isUnowned();
