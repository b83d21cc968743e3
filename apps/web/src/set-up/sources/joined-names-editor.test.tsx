import { expect, test } from '@jest/globals';
import type { ChannelRules, JoinedNames } from '@haycart/core';
import { fireEvent, render, screen } from '@testing-library/react';
import { JoinedNamesEditor } from './joined-names-editor';

/** Renders the editor. Returns a function that reads the current names. */
function shown(names: JoinedNames[], alike: JoinedNames[] = []): () => JoinedNames[] {
  let rules: ChannelRules = { rules: [], names };
  const editor = () => (
    <JoinedNamesEditor
      rules={rules}
      alike={alike}
      change={(edit) => {
        rules = edit(rules);
        view.rerender(editor());
      }}
    />
  );
  const view = render(editor());
  return () => rules.names;
}

test('what looks like one source is joined with a click, and asked no more', () => {
  const names = shown([], [{ name: 'Growers Weekly', spellings: ['GW-ads', 'growersweekly'] }]);
  expect(screen.getByText('GW-ads, growersweekly')).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'Join' }));
  expect(names()).toEqual([{ name: 'Growers Weekly', spellings: ['GW-ads', 'growersweekly'] }]);
  expect(screen.queryByRole('button', { name: 'Join' })).toBeNull();
});

test('what only looks like one source is asked no more, until somebody takes that back', () => {
  const names = shown([], [{ name: 'Growers Weekly', spellings: ['Growers World'] }]);
  fireEvent.click(screen.getByRole('button', { name: 'Not the same' }));
  expect(names()).toEqual([]);
  expect(screen.queryByRole('button', { name: 'Join' })).toBeNull();
  fireEvent.click(screen.getByRole('button', { name: 'Growers World may be Growers Weekly' }));
  expect(screen.getByRole('button', { name: 'Join' })).toBeTruthy();
});

test('a spelling is typed to a name that is there in whatever spelling, and taken away again with the last of it', () => {
  const names = shown([{ name: 'Growers Weekly', spellings: ['GW'] }]);
  fireEvent.change(screen.getByLabelText('Spelling'), { target: { value: ' G. Weekly ' } });
  fireEvent.change(screen.getByLabelText('Counts as'), { target: { value: 'growers-weekly' } });
  fireEvent.click(screen.getByRole('button', { name: 'Add' }));
  expect(names()).toEqual([{ name: 'Growers Weekly', spellings: ['GW', 'G. Weekly'] }]);
  fireEvent.click(screen.getByRole('button', { name: 'GW is not Growers Weekly' }));
  fireEvent.click(screen.getByRole('button', { name: 'G. Weekly is not Growers Weekly' }));
  expect(names()).toEqual([]);
  expect(screen.getByText('No two sources look like one.')).toBeTruthy();
});
