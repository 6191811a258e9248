import { blanksIn, blocksOf, hrefsIn, letterFault, readableLines } from '../../letter';
import { compile, registryOf, slotsOf, STANDARD_NAMES } from '../../merge';
import { askingIn, countParts } from '../../text';
import { STARTERS, starterOf } from '.';

const registry = registryOf(STANDARD_NAMES);
const all = STARTERS.flatMap(({ key, purpose, words }) =>
  Object.entries(words).map(([channel, own]) => ({ key, purpose, channel, own })),
);

test('for each occasion that is asked for, by email, and each key once', () => {
  expect(STARTERS.map(({ key }) => key).sort()).toEqual(
    [
      'event-follow-up',
      'lapsed-return',
      'membership-renewal',
      'monthly-step-up',
      'permission-lapses',
      'thanks-again',
      'thanks-first',
      'thanks-large',
      'update',
      'volunteer-call',
      'welcome',
      'winter-appeal',
    ].sort(),
  );
  expect(STARTERS.every(({ words }) => words.email)).toBe(true);
  expect(starterOf('welcome')?.name).toBe('Welcome');
  expect(starterOf('none')).toBeUndefined();
});

test.each(all)('$key by $channel: every merge field is known, and none leaves a hole', ({ own }) => {
  const compiled = readableLines(own).map((line) => compile(line, registry));
  expect(compiled.flatMap(({ faults }) => faults)).toEqual([]);
  // What nobody is without; the rest is said in other words where missing.
  const always = ['sender.name', 'sender.email', 'organization.name'];
  const bare = compiled.flatMap(slotsOf).filter((slot) => !slot.or && !always.includes(slot.key));
  expect(bare).toEqual([]);
  expect(own.letter === null ? null : letterFault(own.letter)).toBeNull();
});

test('they show what there is: passages for some people, amounts to press, a signature', () => {
  const blocks = all.flatMap(({ own }) => blocksOf(own.letter?.content)).map(({ type }) => type);
  for (const type of ['personal', 'gifts', 'signature'] as const) expect(blocks).toContain(type);
  // Where one gives is the house's to say: no starter leads anywhere by itself.
  const hrefs = all.flatMap(({ own }) => hrefsIn(own.letter));
  expect(new Set(hrefs)).toEqual(new Set(['{Link: giving page}']));
});

test.each(all)('$key by $channel has what its channel needs', ({ channel, own }) => {
  expect(own.subject !== '').toBe(channel === 'email');
  expect(own.letter !== null).toBe(channel === 'email' || channel === 'post');
  expect(own.text !== '').toBe(channel === 'text' || channel === 'call');
  if (channel === 'text') expect(countParts(own.text)).toMatchObject({ alphabet: 'gsm7', parts: 1 });
});

test('thank-yous ask for nothing, since they are service messages', () => {
  const service = all.filter(({ purpose }) => purpose === 'service');
  expect(service.length).toBeGreaterThan(5);
  for (const { key, channel, own } of service)
    expect([key, channel, askingIn(readableLines(own).join('\n'), [])]).toEqual([key, channel, []]);
});

test('what only the writer knows is a blank, in appeals always', () => {
  for (const { key, words } of STARTERS.filter(({ purpose }) => purpose === 'appeals'))
    expect([key, blanksIn(words.email!).length > 0]).toEqual([key, true]);
});
