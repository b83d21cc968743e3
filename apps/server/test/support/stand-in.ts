import { afterAll, beforeAll, beforeEach } from '@jest/globals';

/** A stand-in for something outside, in a process of its own. */
export interface StandIn {
  forget(): Promise<unknown>;
  behave(behaviour: object): Promise<unknown>;
  stop(): void;
}

/** One stand-in for all tests of a file, which has received nothing and behaves as usual when each begins. */
export function eachWithStandIn<Outside extends StandIn>(
  start: () => Promise<Outside>,
  take: (outside: Outside) => unknown,
): void {
  let outside: Outside;
  beforeAll(async () => {
    outside = await start();
    take(outside);
  });
  beforeEach(async () => {
    await outside.forget();
    await outside.behave({});
  });
  afterAll(() => outside.stop());
}
