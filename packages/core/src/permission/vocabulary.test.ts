import { bearingScopes, channelsOf, isListScope, isScope, keysFor, placeAt, type Place } from '.';

test('each kind of address serves its channels', () => {
  expect([channelsOf('email'), channelsOf('mobile'), channelsOf('post')]).toEqual([
    ['email'],
    ['text', 'call'],
    ['post'],
  ]);
});

test('scopes are everything, marketing, a purpose or a list by number', () => {
  const scopes = ['all', 'marketing', 'news', 'appeals', 'volunteering', 'service', 'list:1', 'list:4096'];
  expect(scopes.filter(isScope)).toEqual(scopes);
  expect(
    ['', 'everything', 'list', 'list:', 'list:x', 'list:1x', 'a list:1', 'list:1 ', 'News'].filter(isScope),
  ).toEqual([]);
  expect((['list:7', 'news', 'all'] as const).map(isListScope)).toEqual([true, false, false]);
});

test('wider scopes bear on narrower ones, and an objection to marketing on all but service', () => {
  expect(bearingScopes('all')).toEqual(['all']);
  expect(bearingScopes('service')).toEqual(['service', 'all']);
  expect(bearingScopes('marketing')).toEqual(['marketing', 'all']);
  expect(bearingScopes('list:3')).toEqual(['list:3', 'marketing', 'all']);
});

test('the nearest rules come first, and where nothing is known those for everywhere else', () => {
  expect(keysFor({ country: null, region: 'FL' })).toEqual(['*']);
  expect(keysFor({ country: 'US', region: null })).toEqual(['US', '*']);
  expect(keysFor({ country: 'US', region: 'FL' })).toEqual(['US-FL', 'US', '*']);
  expect(keysFor({ country: 'IS', region: null })).toEqual(['IS', 'EU', '*']);
});

test('somebody was in a place until its moment, that moment left out', () => {
  const [now, first, second]: Place[] = ['US', 'FR', 'CA'].map((country) => ({ country, region: null }));
  const before = [
    { ...first!, until: 10 },
    { ...second!, until: 20 },
  ];
  expect([0, 9, 10, 19, 20, 99].map((at) => placeAt(now!, before, at).country)).toEqual([
    'FR',
    'FR',
    'CA',
    'CA',
    'US',
    'US',
  ]);
});
