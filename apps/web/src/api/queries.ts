/** What pages read, by topic. The first part of each key is the topic whose change makes it stale, beside those of its `meta`; see `useLiveUpdates`. */
export * from './queries/overview';
export * from './queries/access';
export * from './queries/intakes';
export * from './queries/submissions';
export * from './queries/routes';
export * from './queries/records';
export * from './queries/outbox';
export * from './queries/channels';
export * from './queries/mail';
export * from './queries/tasks';
export * from './queries/sources';
export * from './queries/campaigns';
export * from './queries/value-sets';
export * from './queries/set-up';
