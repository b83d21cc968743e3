import type { DecisionTable, TableAround, TableCheck } from '@haycart/core';

/** A table to be checked; an answer carries the turn of its question. */
export interface ToChecker {
  turn: number;
  table: DecisionTable;
  around: TableAround;
}

export interface FromChecker {
  turn: number;
  check: TableCheck;
}
