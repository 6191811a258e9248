import { isRelationship } from '@goodword/core/permission';
import { channelsFor, HAND_STATES, kept, roadsFor } from './entry';

test('an address serves the channels of its kind, and nothing implies a text', () => {
  expect(channelsFor('email', 'implied')).toEqual(['email']);
  expect(channelsFor('mobile', 'yes')).toEqual(['text', 'call']);
  expect(channelsFor('mobile', 'implied')).toEqual(['call']);
  expect(channelsFor('post', 'no')).toEqual(['post']);
});

test('only relationships imply, and only implied permission comes of them', () => {
  for (const state of HAND_STATES)
    expect(roadsFor(state).every((road) => isRelationship(road) === (state === 'implied'))).toBe(true);
});

test('a choice that is no longer offered gives way to the first that is', () => {
  expect(kept('paper', roadsFor('yes'))).toBe('paper');
  expect(kept('paper', roadsFor('implied'))).toBe('gift');
});
