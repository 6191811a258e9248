import { ROLES } from '../team';
import { mayChangeTemplate, maySayTeams, maySeeTemplate } from '.';

// Written from the rule: team templates and one's own; a writer may make them, an organizer says which are
// the team's.
const OWN = { ownerId: 1, isTeam: false };
const OTHERS = { ownerId: 2, isTeam: false };
const ORPHAN = { ownerId: null, isTeam: false };
const TEAM = { ownerId: 1, isTeam: true };
const who = (may: (reader: { id: number | null; role: (typeof ROLES)[number] }) => boolean) =>
  ROLES.filter((role) => may({ id: 1, role }));

test("everybody sees the team's and their own, organizers all", () => {
  expect(who((reader) => maySeeTemplate(TEAM, reader))).toEqual([...ROLES]);
  expect(who((reader) => maySeeTemplate(OWN, reader))).toEqual([...ROLES]);
  expect(who((reader) => maySeeTemplate(OTHERS, reader))).toEqual(['organizer', 'owner']);
  expect(who((reader) => maySeeTemplate(ORPHAN, reader))).toEqual(['organizer', 'owner']);
  expect(maySeeTemplate(ORPHAN, { id: null, role: 'writer' })).toBe(false);
});

test("a writer changes their own until it is the team's, an organizer all, a viewer none", () => {
  expect(who((reader) => mayChangeTemplate(OWN, reader))).toEqual(['writer', 'organizer', 'owner']);
  expect(who((reader) => mayChangeTemplate(TEAM, reader))).toEqual(['organizer', 'owner']);
  expect(who((reader) => mayChangeTemplate(OTHERS, reader))).toEqual(['organizer', 'owner']);
  expect(who(maySayTeams)).toEqual(['organizer', 'owner']);
});
