import type { ConditionTest } from '../condition-test';

export const isMe: ConditionTest = {
  name: 'me',
  label: 'is me',
  fits: ['person'],
  wanted: 'none',
  example: { type: 'person', meets: 'robin-nye', fails: 'idris-vale' },
  compare: (_, { me }) =>
    me === undefined
      ? 'Nobody is signed in here, so nobody is “me”.'
      : { comparison: { of: 'options', how: 'any', wanted: [me] }, not: false },
};
