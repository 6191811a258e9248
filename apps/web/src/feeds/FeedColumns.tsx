import { plural, t } from '@lingui/core/macro';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { FeedRows } from '@goodword/core/contract';
import type { FeedColumn, FeedPlan } from '@goodword/core/feeds';
import type { ColumnChoice } from '@goodword/core/intake';
import { reading } from '../app/reading';
import { useSession } from '../app/session';
import { columnWords, offerKey, offersFor } from '../gather/columnWords';
import { NewField } from '../gather/NewField';
import { Button, Labelled, Loading, ProblemNote } from '../ui/basics';
import { Drawer } from '../ui/dialogs';
import { TableHead } from '../ui/TableHead';

type Making = Extract<ColumnChoice, { to: 'newField' }>;

/** What a column becomes, chosen among all that it can be. */
function Target({
  name,
  choice,
  values,
  onChoose,
}: {
  name: string;
  choice: ColumnChoice;
  values: string[];
  onChoose: (choice: ColumnChoice) => void;
}) {
  const { organization } = useSession();
  const { data: fields = [] } = useQuery(reading('fields'));
  const [making, setMaking] = useState<Making | null>(null);
  const offers = offersFor(name, fields).known;
  const start: Making =
    choice.to === 'newField' ? choice : { to: 'newField', name: name.slice(0, 60), type: 'text' };
  return (
    <>
      <select
        className="input"
        aria-label={t`What “${name}” becomes`}
        value={choice.to === 'newField' ? 'new' : offerKey(choice)}
        onChange={({ target }) => {
          if (target.value === 'new') return setMaking(start);
          const offer = offers.flatMap(([, some]) => some).find(({ key }) => key === target.value);
          onChoose(offer?.choice ?? { to: 'leave' });
        }}
      >
        <option value="leave">{t`Leave out`}</option>
        {offers.map(([group, some]) => (
          <optgroup key={group} label={group}>
            {some.map(({ key, words }) => (
              <option key={key} value={key}>
                {words}
              </option>
            ))}
          </optgroup>
        ))}
        <option value="new">
          {choice.to === 'newField' ? columnWords(choice, fields, organization.country)[0] : t`Make a field…`}
        </option>
      </select>
      {making && (
        <NewField
          start={making}
          values={values}
          onClose={() => setMaking(null)}
          onMake={(made) => (setMaking(null), onChoose(made))}
        />
      )}
    </>
  );
}

/** The columns over there, each with its first values, and what it becomes here. */
function Matching({
  plan,
  seen,
  onDone,
}: {
  plan: FeedPlan;
  seen: FeedRows;
  onDone: (part: Pick<FeedPlan, 'columns' | 'key'>) => void;
}) {
  const before = new Map(plan.columns.map(({ name, choice }) => [name, choice]));
  // Columns that were never seen are guessed; what was chosen stays.
  const [columns, setColumns] = useState<FeedColumn[]>(() =>
    seen.header.map((name, i) => ({
      name,
      choice:
        before.get(name) ??
        (plan.columns.length > 0 ? { to: 'leave' } : (seen.guesses[i]?.choice ?? { to: 'leave' })),
    })),
  );
  const [key, setKey] = useState(plan.key ?? seen.key);
  const set = (at: number, choice: ColumnChoice) =>
    setColumns(columns.map((one, i) => (i === at ? { ...one, choice } : one)));
  const taken = columns.filter(({ choice }) => choice.to !== 'leave');
  return (
    <form
      className="flex flex-col gap-3 min-h-0"
      onSubmit={(event) => {
        event.preventDefault();
        onDone({ columns: taken, key });
      }}
    >
      <div
        className="sheet overflow-y-auto min-h-0"
        tabIndex={0}
        role="region"
        aria-label={t`Columns over there`}
      >
        <table className="w-full">
          <TableHead titles={[t`Over there`, t`First values`, t`Becomes here`]} />
          <tbody>
            {columns.map(({ name, choice }, i) => {
              const values = seen.rows.map((row) => row[i] ?? '');
              const shown = [...new Set(values.filter((value) => value !== ''))].slice(0, 3).join(' · ');
              return (
                <tr key={name} className="border-b border-hair">
                  <td className="px-4 py-2 font-semibold">{name}</td>
                  <td className="px-4 py-2 font-mono text-[12px] max-w-[260px] truncate" title={shown}>
                    {shown}
                  </td>
                  <td className="px-4 py-2 w-[230px]">
                    <Target name={name} choice={choice} values={values} onChoose={(next) => set(i, next)} />
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
      <Labelled
        label={t`What tells one record from another`}
        hint={t`By it somebody is known again, also when their address has changed over there.`}
      >
        <select className="input" value={key ?? ''} onChange={({ target }) => setKey(target.value)}>
          {seen.header.map((name) => (
            <option key={name} value={name}>
              {name}
            </option>
          ))}
        </select>
      </Labelled>
      <Button weight="main" type="submit" className="self-start" disabled={taken.length === 0}>
        {plural(taken.length, { one: 'Match # column', other: 'Match # columns' })}
      </Button>
    </form>
  );
}

/** Matches columns of the source over the first rows as they come. */
export function FeedColumns({
  id,
  plan,
  onClose,
  onDone,
}: {
  id: number;
  plan: FeedPlan;
  onClose: () => void;
  onDone: (part: Pick<FeedPlan, 'columns' | 'key'>) => void;
}) {
  const { type, filter } = plan.take!;
  const { data, error } = useQuery({
    ...reading('feeds/{id}/rows', { id, type: type.key, filter: filter?.key ?? '' }),
    retry: false,
  });
  return (
    <Drawer
      open
      onClose={onClose}
      wide
      title={t`Columns of ${type.name}`}
      note={t`The first rows as they come`}
    >
      <ProblemNote error={error} />
      {!data && !error && <Loading what={t`the first rows`} />}
      {data && <Matching plan={plan} seen={data} onDone={onDone} />}
    </Drawer>
  );
}
