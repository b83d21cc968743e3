import { describe, expect, test } from '@jest/globals';
import { LaneCounts, laneOf, mostAtOnce, mostTaken } from './lanes';

const item = (kind: string, target: string, workspaceId = 'one') => ({ kind, target, workspaceId });

describe('a lane', () => {
  test('is shared by all that goes through one server of a workspace, and is else that of an address', () => {
    expect(laneOf(item('mail', 'a@weir.example'))).toBe(laneOf(item('mail', 'b@weir.example')));
    expect(laneOf(item('mail', 'a@weir.example'))).not.toBe(laneOf(item('mail', 'a@weir.example', 'two')));
    expect(laneOf(item('text', '+44'))).not.toBe(laneOf(item('mail', '+44')));
    expect(laneOf(item('post', 'https://a.example'))).toBe(laneOf(item('chat', 'https://a.example', 'two')));
  });

  test('takes more at once where it is a server, and one alone while nothing is answered', () => {
    const [mail, post] = [laneOf(item('mail', 'x')), laneOf(item('post', 'https://a.example'))];
    expect(mostAtOnce(mail, false)).toBeGreaterThan(mostAtOnce(post, false));
    expect([mostAtOnce(mail, true), mostAtOnce(post, true)]).toEqual([1, 1]);
  });

  test('is counted as its workspace names it; of one that gives no answer little more is taken', () => {
    const taken = new LaneCounts();
    taken.add(laneOf(item('mail', 'x')), 1);
    taken.add(laneOf(item('mail', 'x', 'two')), 1);
    taken.add('https://a.example', 1);
    taken.add('https://a.example', 1);
    taken.add('https://b.example', 1);
    taken.add('https://b.example', -1);
    expect(taken.of('one')).toEqual(
      new Map([
        ['mail', 1],
        ['https://a.example', 2],
      ]),
    );
    const failing = ['https://dead.example', laneOf(item('mail', 'x', 'two'))];
    expect(taken.of('one', failing).get('https://dead.example')).toBe(mostTaken('https://dead.example') - 2);
    expect(taken.of('one', failing).get('mail')).toBe(1);
    expect(taken.of('two', failing).get('mail')).toBe(1 + mostTaken('mail') - 2);
  });
});
