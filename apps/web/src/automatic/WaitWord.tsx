import { plural, t } from '@lingui/core/macro';
import { useState } from 'react';
import { MORNING, SERIES_LIMITS, WAIT_UNITS, type Wait, type WaitUnit } from '@goodword/core/automations';
import { parseClock } from '@goodword/core/fields';
import { clockWords } from '@goodword/core/permission';
import { Button, Labelled } from '../ui/basics';
import { Word } from '../sort/lines/Word';

const UNITS: Record<WaitUnit, string> = { minutes: t`minutes`, hours: t`hours`, days: t`days` };

const LATER: Record<WaitUnit, (n: number) => string> = {
  minutes: (n) => plural(n, { one: '# minute later', other: '# minutes later' }),
  hours: (n) => plural(n, { one: '# hour later', other: '# hours later' }),
  days: (n) => plural(n, { one: '# day later', other: '# days later' }),
};

/** `2 hours later`, `at once`, `3 days later at 10:00`, `that day at 10:00`. */
export function waitWords({ n, unit, at: said }: Wait, ofDay = false): string {
  const at = said === null && ofDay && (n === 0 || unit === 'days') ? MORNING : said;
  if (at === null) return n === 0 ? t`at once` : LATER[unit](n);
  const time = clockWords(at);
  if (n === 0) return t`that day at ${time}`;
  const later = LATER[unit](n);
  return t`${later} at ${time}`;
}

/** How long one waits, taken as a whole: a part of it alone may be none. */
export function WaitForm({ wait, act, onDone }: { wait: Wait; act: string; onDone: (wait: Wait) => void }) {
  const [n, setN] = useState(String(wait.n));
  const [unit, setUnit] = useState(wait.unit);
  const [time, setTime] = useState(wait.at === null ? '' : clockWords(wait.at));
  const many = /^\d{1,3}$/.test(n.trim()) && Number(n) <= SERIES_LIMITS.wait ? Number(n) : null;
  const at = time.trim() === '' ? null : parseClock(time);
  const isTime = time.trim() === '' || at !== null;
  return (
    <form
      className="flex flex-col gap-2 w-[260px]"
      onSubmit={(event) => {
        event.preventDefault();
        if (many !== null && isTime) onDone({ n: many, unit, at: unit === 'days' ? at : null });
      }}
    >
      <div className="grid grid-cols-[90px_1fr] gap-2">
        <Labelled label={t`How long`}>
          <input
            className="input"
            inputMode="numeric"
            autoFocus
            aria-invalid={many === null || undefined}
            value={n}
            onChange={({ target }) => setN(target.value)}
          />
        </Labelled>
        <Labelled label={t`Of what`}>
          <select className="input" value={unit} onChange={({ target }) => setUnit(target.value as WaitUnit)}>
            {WAIT_UNITS.map((one) => (
              <option key={one} value={one}>
                {UNITS[one]}
              </option>
            ))}
          </select>
        </Labelled>
      </div>
      {unit === 'days' && (
        <Labelled
          label={t`Time of day; empty for the same time`}
          hint={isTime ? undefined : t`This is no time. Write it like 17:30.`}
        >
          <input className="input" value={time} onChange={({ target }) => setTime(target.value)} />
        </Labelled>
      )}
      {many === null && (
        <p className="text-madder text-[12.5px]">{t`A whole number, at most ${SERIES_LIMITS.wait}.`}</p>
      )}
      <Button type="submit" className="self-start" disabled={many === null || !isTime}>
        {act}
      </Button>
    </form>
  );
}

/** How long one waits, as a word of its sentence. */
export function WaitWord({
  wait,
  ofDay,
  onChange,
}: {
  wait: Wait;
  ofDay: boolean;
  onChange: (wait: Wait) => void;
}) {
  return (
    <Word words={waitWords(wait, ofDay)} label={t`When it leaves`}>
      {(close) => <WaitForm wait={wait} act={t`Keep it`} onDone={(next) => (onChange(next), close())} />}
    </Word>
  );
}
