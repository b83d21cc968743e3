import { test as base } from '@playwright/test';
import { addressOf } from './servers';

/** A journey, on the demo of the worker that runs it. */
export const test = base.extend({
  baseURL: ({}, use, { parallelIndex }) => use(addressOf(parallelIndex)),
});
