export type { Course } from './schema';
export * from './course';
export * from './graph';
export { cycles } from './cycles';
export * from './circles';
