import { isNicknameOf } from '../nicknames';
import type { Comparator } from './comparator';

export const nicknameComparator: Comparator = {
  name: 'nickname',
  label: 'Names of one person',
  description: 'Given names that one person goes by, in several languages, either way round: 1 or 0.',
  alike: (one, other) => (one === other || isNicknameOf(one, other) ? 1 : 0),
  examples: [
    ['bill', 'william', 1],
    ['pieter', 'peter', 1],
    ['sasha', 'aleksandr', 1],
    ['bill', 'bob', 0],
  ],
};
