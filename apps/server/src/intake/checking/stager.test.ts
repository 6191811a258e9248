import type { IntakePlan, RowVerdict, Candidate } from '@goodword/core/intake';
import { planFor } from '../../testing/steps';
import type { MatchClue } from '../doubles/earlier-rows';
import { Stager } from './stager';

const HOUSE = { country: 'US', currency: 'USD' };
const ABOUT = { today: 20_900, births: new Set<number>() };
const line = (cells: string[]) => ({ cells, aside: null });

/*
 * Rows as "email, first, last, mobile"; people on file as "id email-or-mobile first last". A verdict is
 * written with who it is: "update 5" is person 5 on file, "update #2" the person of row 2.
 */
function stage(rows: string[], onFile: string[] = [], plan: Partial<IntakePlan> = {}): string[] {
  const stager = new Stager(planFor(plan), HOUSE, ABOUT);
  const known = ({ by, key }: MatchClue): Candidate[] =>
    onFile.flatMap((line) => {
      const [id, address, firstName = '', lastName = ''] = line.split(' ');
      return address === key ? [{ id: Number(id), firstName, lastName, by }] : [];
    });
  return rows.map((row, i) => {
    const staged = stager.stage(stager.clean(line(row.split(',').map((cell) => cell.trim())), i + 1), known);
    const who = staged.sameAsRow
      ? ` #${staged.sameAsRow}`
      : staged.supporterId
        ? ` ${staged.supporterId}`
        : '';
    return `${staged.verdict satisfies RowVerdict}${who}`;
  });
}

test.each<[string, string[], string[], string[]]>([
  ['somebody new', ['a@x.org, Ann, Lin,'], [], ['new']],
  ['somebody here', ['a@x.org, Ann, Lin,'], ['5 a@x.org Ann Lin'], ['update 5']],
  ['another name at the address', ['a@x.org, Jun, Lin,'], ['5 a@x.org Ann Lin'], ['shares']],
  ['a repeat in the file', ['a@x.org, Ann, Lin,', 'A@X.org, ANN, ,'], [], ['new', 'update #1']],
  [
    'a repeat of a repeat',
    ['a@x.org, Ann, Lin,', 'a@x.org, Ann,,', 'a@x.org, Ann, Lin,'],
    [],
    ['new', 'update #1', 'update #1'],
  ],
  [
    'a household in the file',
    ['a@x.org, Ann, Lin,', 'a@x.org, Jun, Lin,', 'a@x.org, Jun, Lin,'],
    [],
    ['new', 'shares', 'update #2'],
  ],
  [
    'a mobile learned from a repeat finds its person',
    ['a@x.org, Ann, Lin,', 'a@x.org, Ann, Lin, 206 555 0101', ', Ann, Lin, 206 555 0101'],
    [],
    ['new', 'update #1', 'update #1'],
  ],
  [
    'a mobile learned for somebody here',
    ['a@x.org, Ann, Lin, 206 555 0101', ', Ann, , 206 555 0101'],
    ['5 a@x.org Ann Lin'],
    ['update 5', 'update 5'],
  ],
  ['two people', ['a@x.org, Ann,, 206 555 0101'], ['5 a@x.org Ann Lin', '6 +12065550101 Ann Berg'], ['look']],
  ['nobody to reach', ['none, Ann, Lin,', ',,,'], [], ['failed', 'failed']],
])('%s', (_name, rows, onFile, expected) => expect(stage(rows, onFile)).toEqual(expected));

test('people who are to be left are left, also those of earlier rows', () => {
  expect(
    stage(['a@x.org, Ann, Lin,', 'b@x.org, Bo, Lin,', 'b@x.org, Bo, Lin,'], ['5 a@x.org Ann Lin'], {
      existing: 'leave',
    }),
  ).toEqual(['here 5', 'new', 'here #2']);
});

test('values of a field that is yet to be made wait under their column', () => {
  const columns: IntakePlan['columns'] = [
    { to: 'email' },
    { to: 'newField', name: 'Boat', type: 'text' },
    { to: 'field', fieldId: 8, type: 'number' },
  ];
  const stager = new Stager(planFor({ columns }), HOUSE, ABOUT);
  const { values, reason } = stager.stage(stager.clean(line(['a@x.org', 'punt', 'many']), 1), () => []);
  expect(values).toEqual([{ fieldId: -2, value: { text: 'punt' } }]);
  expect(reason).toBe('expected a number, got "many" (left out)');
});
