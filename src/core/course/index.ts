export * from './course';
export * from './graph';
export { cycles, type Cycle } from './cycles';
export * from './circles';
