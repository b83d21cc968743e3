import type { DataDriven, JourneyPath } from '@haycart/core';

export interface ToShares {
  paths: JourneyPath[];
}

/** How far it is, or what came out. */
export type FromShares = { percent: number } | { result: DataDriven };
