import type { DecisionThing } from '@haycart/api';
import { PLURALS } from '../api/record-kinds';

/** The page of what a decision is about. */
export function addressOfThing({ kind, id }: Pick<DecisionThing, 'kind' | 'id'>): string {
  switch (kind) {
    case 'intake':
      return `/intakes/${id}`;
    case 'route':
      return `/routes/${id}`;
    case 'contact':
    case 'company':
    case 'lead':
    case 'deal':
      return `/records/${PLURALS[kind]}/${id}`;
  }
}
