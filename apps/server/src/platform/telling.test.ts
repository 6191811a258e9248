import { untold, writtenBy } from './telling';

test.each([
  ['INSERT IGNORE INTO supporter_tag (organization_id) SELECT 1 FROM supporter', 'insert supporter_tag'],
  ["LOAD DATA LOCAL INFILE 'rows' INTO TABLE `batch_row` CHARACTER SET utf8mb4", 'insert batch_row'],
  ['UPDATE supporter SET first_name = ?', 'update supporter'],
  ["UPDATE batch_row r JOIN supporter s ON s.id = r.supporter_id SET r.verdict = 'same'", 'update batch_row'],
  [
    'UPDATE batch_row r JOIN supporter s ON s.id = r.supporter_id SET s.postcode = r.postcode',
    'update supporter',
  ],
  ['UPDATE IGNORE `field_value` SET supporter_id = 4', 'update field_value'],
  ['DELETE FROM roster WHERE organization_id = 1', 'delete roster'],
  [
    'DELETE t FROM batch_row r JOIN supporter_tag t ON t.supporter_id = r.supporter_id',
    'delete supporter_tag',
  ],
  ['SELECT id FROM supporter FOR UPDATE', 'null null'],
])('what is written by %s', (sql, written) => {
  const found = writtenBy(sql);
  expect(`${found?.kind ?? null} ${found?.table ?? null}`).toBe(written);
});

test('what must be told, and what tells it', () => {
  const tagged = ['INSERT INTO supporter_tag (supporter_id) VALUES (1)'];
  expect(untold(tagged, ['nothing'], false)).toEqual(tagged);
  expect(untold(tagged, ['list'], false)).toEqual(tagged);
  expect([
    untold(tagged, ['tag'], false),
    untold(tagged, ['people'], false),
    untold(tagged, ['all'], false),
    untold(tagged, [], false),
  ]).toEqual([[], [], [], []]);
  // A transaction that leaves no mark tells nothing, whatever it says.
  expect(untold(tagged, [], true)).toEqual(tagged);
  expect(untold(["UPDATE contact_point SET shown = '(erased)'"], ['nothing'], false)).toEqual([]);
});

test.each(['in-flight', 'sent', 'delivered', 'bounced'])(
  'a delivery that becomes %s bears on caps, however the statement is set out',
  (state) => {
    const moved = [`UPDATE delivery\n  SET state = '${state}'\n  WHERE organization_id = 1`];
    expect([untold(moved, ['nothing'], false), untold(moved, ['reach'], false)]).toEqual([moved, []]);
  },
);
