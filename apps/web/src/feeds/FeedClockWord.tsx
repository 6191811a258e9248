import { t } from '@lingui/core/macro';
import { FEED_CLOCK, type Every } from '@goodword/core/feeds';
import { everyWords } from '@goodword/core/words';
import { Labelled } from '../ui/basics';
import { Open, Tick, withOrWithout } from './FeedWord';

const UNITS: readonly [Every['unit'], string][] = [
  ['minutes', t`Every so many minutes`],
  ['hours', t`Every so many hours`],
  ['days', t`Every so many days`],
  ['weekdays', t`On some weekdays`],
];
const WEEKDAYS = [t`Monday`, t`Tuesday`, t`Wednesday`, t`Thursday`, t`Friday`, t`Saturday`, t`Sunday`];
const AT = 120;

const pad = (n: number) => String(n).padStart(2, '0');
const timeOf = (minutes: number) => `${pad(Math.floor(minutes / 60))}:${pad(minutes % 60)}`;

function startOf(unit: Every['unit'], now: Every | null): Every {
  const at = now && 'at' in now ? now.at : AT;
  if (unit === 'minutes') return { unit, n: 15 };
  if (unit === 'hours') return { unit, n: 1 };
  return unit === 'days' ? { unit, n: 1, at } : { unit, days: [1, 2, 3, 4, 5], at };
}

/** How often it looks by the clock; `mayNever` where it looks at once as well. */
export function FeedClockWord({
  every,
  mayNever,
  onChange,
}: {
  every: Every | null;
  mayNever: boolean;
  onChange: (every: Every | null) => void;
}) {
  return (
    <Open words={every === null ? t`never by the clock` : everyWords(every)} label={t`By the clock`}>
      {() => (
        <div className="flex flex-col gap-3 w-[300px]">
          <Labelled label={t`By the clock`}>
            <select
              className="input"
              value={every?.unit ?? 'never'}
              onChange={({ target }) =>
                onChange(target.value === 'never' ? null : startOf(target.value as Every['unit'], every))
              }
            >
              {mayNever && <option value="never">{t`Never`}</option>}
              {UNITS.map(([unit, words]) => (
                <option key={unit} value={unit}>
                  {words}
                </option>
              ))}
            </select>
          </Labelled>
          {every !== null && every.unit !== 'weekdays' && (
            <Labelled label={t`How many`}>
              <input
                className="input"
                type="number"
                min={1}
                max={FEED_CLOCK[every.unit]}
                defaultValue={every.n}
                onBlur={({ target }) => {
                  const n = Math.round(Number(target.value));
                  if (n >= 1 && n <= FEED_CLOCK[every.unit] && n !== every.n) onChange({ ...every, n });
                }}
              />
            </Labelled>
          )}
          {every?.unit === 'weekdays' &&
            WEEKDAYS.map((day, i) => (
              <Tick
                key={day}
                on={every.days.includes(i + 1)}
                onTick={() => {
                  const days = withOrWithout(every.days, i + 1);
                  if (days.length > 0) onChange({ ...every, days });
                }}
              >
                {day}
              </Tick>
            ))}
          {every !== null && 'at' in every && (
            <Labelled label={t`At`}>
              <input
                className="input"
                type="time"
                defaultValue={timeOf(every.at)}
                onBlur={({ target }) => {
                  const [hours, minutes] = target.value.split(':').map(Number);
                  if (target.value !== '') onChange({ ...every, at: hours! * 60 + minutes! });
                }}
              />
            </Labelled>
          )}
        </div>
      )}
    </Open>
  );
}
