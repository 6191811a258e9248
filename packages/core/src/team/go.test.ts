import fc from 'fast-check';
import { GO_ACTS, goStanding, hasItsGo, mayGo, ROLES, type Go, type GoAct } from '.';

const asked: Go = { state: 'asked', version: 3, askedBy: 1 };
const may = (act: GoAct, go: Go | null, id: number) => ROLES.filter((role) => mayGo(act, go, { id, role }));

test('what was agreed is fixed by its version', () => {
  const agreed: Go = { ...asked, state: 'agreed' };
  expect([goStanding(null, 3), goStanding(agreed, 3), goStanding(agreed, 4)]).toEqual([
    'none',
    'agreed',
    'changed',
  ]);
  expect([goStanding(asked, 9), goStanding({ ...asked, state: 'back' }, 9)]).toEqual(['asked', 'back']);
});

test('only what nobody asked about, or was agreed to as it is, may leave', () => {
  const standings = ['none', 'asked', 'back', 'agreed', 'changed'] as const;
  expect(standings.filter(hasItsGo)).toEqual(['none', 'agreed']);
});

test('a writer hands over and takes back what is theirs; an organizer who did not ask decides', () => {
  const writers = ['writer', 'organizer', 'owner'];
  const organizers = ['organizer', 'owner'];
  expect([may('ask', null, 1), may('ask', asked, 1)]).toEqual([writers, []]);
  expect([may('withdraw', asked, 1), may('withdraw', asked, 2)]).toEqual([writers, organizers]);
  expect([may('agree', asked, 2), may('agree', asked, 1)]).toEqual([organizers, []]);
  expect([may('back', asked, 2), may('back', null, 2)]).toEqual([organizers, []]);
  expect(may('agree', { ...asked, state: 'back' }, 2)).toEqual([]);
});

test('nobody agrees to their own words, and a viewer does nothing', () => {
  const go = fc.option(
    fc.record({
      state: fc.constantFrom('asked' as const, 'back' as const, 'agreed' as const),
      version: fc.nat(5),
      askedBy: fc.option(fc.nat(3), { nil: null }),
    }),
    { nil: null },
  );
  fc.assert(
    fc.property(go, fc.constantFrom(...GO_ACTS), fc.nat(3), (one, act, id) => {
      expect(mayGo(act, one, { id, role: 'viewer' })).toBe(false);
      if (one?.askedBy === id) expect(mayGo('agree', one, { id, role: 'owner' })).toBe(false);
    }),
  );
});
