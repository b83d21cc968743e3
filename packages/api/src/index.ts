export * from './errors';
export * from './shapes';
