import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { checkPipeline } from './check-pipeline';
import type { Pipeline, Stage } from './destination';
import { defaultStageOf, editPipeline } from './edit-pipeline';
import { newKey } from '../field/new-key';

const stage = (key: string, state: Stage['state'] = 'open', more: Partial<Stage> = {}): Stage => ({
  key,
  name: key.toUpperCase(),
  state,
  ...more,
});
const PIPELINE: Pipeline = {
  key: 'builds',
  name: 'Builds',
  record: 'deal',
  stages: [stage('asked'), stage('drawn'), stage('won', 'won'), stage('lost', 'lost')],
};
const keys = ({ stages }: Pipeline) => stages.map(({ key }) => key);

describe('a pipeline', () => {
  test('takes a new open stage before those that close a deal, a closing one at the end, and any where it is told', () => {
    const add = (added: Stage, before?: string) =>
      keys(editPipeline(PIPELINE, { do: 'add-stage', stage: added, before }));
    expect(add(stage('priced'))).toEqual(['asked', 'drawn', 'priced', 'won', 'lost']);
    expect(add(stage('left', 'lost'))).toEqual(['asked', 'drawn', 'won', 'lost', 'left']);
    expect(add(stage('priced'), 'drawn')).toEqual(['asked', 'priced', 'drawn', 'won', 'lost']);
  });

  test('keeps its keys when things are renamed, and loses the spaces around a name', () => {
    const renamed = editPipeline(PIPELINE, { do: 'change-stage', stage: 'drawn', change: { name: ' Design ' } });
    expect(renamed.stages[1]).toEqual({ key: 'drawn', name: 'Design', state: 'open' });
    expect(editPipeline(PIPELINE, { do: 'rename', name: ' New builds' })).toMatchObject({
      key: 'builds',
      name: 'New builds',
    });
  });

  test('begins in its first open stage unless another is chosen, and again when that one goes or closes', () => {
    expect(defaultStageOf(PIPELINE)!.key).toBe('asked');
    const chosen = editPipeline(PIPELINE, { do: 'default-stage', stage: 'drawn' });
    expect(defaultStageOf(chosen)!.key).toBe('drawn');
    expect(editPipeline(chosen, { do: 'remove-stage', stage: 'drawn' }).defaultStage).toBe('asked');
    expect(editPipeline(chosen, { do: 'change-stage', stage: 'drawn', change: { state: 'won' } }).defaultStage).toBe(
      'asked',
    );
  });

  test('keeps all its stages when one is moved, wherever to', () => {
    fc.assert(
      fc.property(fc.constantFrom(...keys(PIPELINE), 'gone'), fc.integer(), (key, to) => {
        const moved = editPipeline(PIPELINE, { do: 'move-stage', stage: key, to });
        expect([...keys(moved)].sort()).toEqual([...keys(PIPELINE)].sort());
        if (key !== 'gone') expect(keys(moved).indexOf(key)).toBe(Math.max(0, Math.min(3, to)));
      }),
    );
  });

  test.each<[string, Pipeline, string[]]>([
    ['nothing wrong', PIPELINE, []],
    ['no name', { ...PIPELINE, name: '  ' }, ['name-blank /name']],
    ['a long name', { ...PIPELINE, name: 'x'.repeat(101) }, ['name-too-long /name']],
    [
      'two stages of one name',
      { ...PIPELINE, stages: [...PIPELINE.stages, { ...stage('drawn-2'), name: ' drawn' }] },
      ['name-taken /stages/4/name'],
    ],
    ['no open stage', { ...PIPELINE, stages: PIPELINE.stages.slice(2) }, ['no-open-stage /stages']],
    ['a closed default', { ...PIPELINE, defaultStage: 'won' }, ['default-not-open /defaultStage']],
    [
      'a probability beyond 100 and half a day',
      { ...PIPELINE, stages: [stage('a', 'open', { probability: 101, stuckAfter: 0.5 })] },
      ['out-of-range /stages/0/probability', 'out-of-range /stages/0/stuckAfter'],
    ],
  ])('is checked: %s', (_name, pipeline, problems) =>
    expect(checkPipeline(pipeline).map(({ code, at }) => `${code} ${at}`)).toEqual(problems),
  );
});

describe('a new key', () => {
  test.each([
    ['Site survey', [], 'site-survey'],
    ['  Höhe & Tiefe ', [], 'hohe-tiefe'],
    ['Offer made!', ['offer-made', 'offer-made-2'], 'offer-made-3'],
    ['温室', [], 'unnamed'],
  ])('for %j with %j taken is %s', (name, taken, key) => expect(newKey(name, taken)).toBe(key));

  test('is never one that is taken, and always fit to be a key', () => {
    fc.assert(
      fc.property(
        fc.string(),
        fc.array(fc.string()),
        fc.constantFrom('-' as const, '_' as const),
        (name, taken, mark) => {
          const key = newKey(name, taken, mark);
          expect(taken).not.toContain(key);
          expect(key).toMatch(/^[a-z0-9]+([-_][a-z0-9]+)*$/);
        },
      ),
    );
  });
});
