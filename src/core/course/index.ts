export * from './course';
