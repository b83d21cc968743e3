import { describe, expect, test } from '@jest/globals';
import type { RouteLine } from '@haycart/api';
import { byIntake, failureRate, shownRoutes } from './route-list';

const route = (name: string, runs: Partial<RouteLine['runs']> = {}, more: Partial<RouteLine> = {}) =>
  ({
    name,
    words: { sentence: `${name} → contact` },
    from: [{ key: 'survey', name: 'Site survey' }],
    runs: { written: 0, held: 0, skipped: 0, failed: 0, 'taken-back': 0, ...runs },
    lastRunOn: null,
    draftSavedAt: '2026-11-01T00:00:00.000Z',
    ...more,
  }) as unknown as RouteLine;

const calls = route('Calls', { written: 9, failed: 1 }, { lastRunOn: '2026-11-02' });
const dealers = route('Dealers', { written: 2, failed: 2 }, { from: [{ key: 'd', name: 'Dealer form' }] });
const bare = route('Bare', {}, { from: [] });
const all = [dealers, calls, bare];
const names = (routes: readonly RouteLine[]) => routes.map(({ name }) => name);

describe('the list of routes', () => {
  test('is searched by name, sentence and intake, every word', () => {
    expect(names(shownRoutes(all, ' dealer FORM', null, false))).toEqual(['Dealers']);
    expect(names(shownRoutes(all, 'contact', null, false))).toEqual(['Dealers', 'Calls', 'Bare']);
    expect(shownRoutes(all, 'orchids', null, false)).toEqual([]);
  });

  test('is sorted either way, and what there is none of comes last', () => {
    expect(names(shownRoutes(all, '', 'name', false))).toEqual(['Bare', 'Calls', 'Dealers']);
    expect(names(shownRoutes(all, '', 'rate', true))).toEqual(['Dealers', 'Calls', 'Bare']);
    expect(names(shownRoutes(all, '', 'rate', false))).toEqual(['Calls', 'Dealers', 'Bare']);
    expect(names(shownRoutes(all, '', 'lastRunOn', true))[0]).toBe('Calls');
    expect(names(shownRoutes(all, '', 'written', true))).toEqual(['Calls', 'Dealers', 'Bare']);
  });

  test('tells what share failed, and groups by intake', () => {
    expect([failureRate(calls), failureRate(dealers), failureRate(bare)]).toEqual([0.1, 0.5, null]);
    const both = route('Both', {}, { from: [...calls.from, ...dealers.from] });
    expect(byIntake([...all, both]).map(({ name, routes }) => [name, names(routes)])).toEqual([
      ['Dealer form', ['Dealers', 'Both']],
      ['No intake', ['Bare']],
      ['Site survey', ['Calls', 'Both']],
    ]);
  });
});
