import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { WEEKDAYS, type Hours, type HourSpan, type Weekday } from '@goodword/core/permission';
import { clockOf, minutesOf } from './edit';
import { RuleLine, Pick, YesNoChoice } from './parts';

type Other = 'same' | 'from' | 'none';
const OTHER: Record<Other, string> = { same: t`the same`, from: 'from', none: t`not at all` };
const WEEKEND: readonly Weekday[] = ['sat', 'sun'];
const DAY: HourSpan = { from: 480, to: 1260 };

interface Props {
  words: string;
  hours: Hours | null;
  onChange: (hours: Hours | null) => void;
}

/** When something may leave, in a sentence: every day, and what differs on weekends and holidays. */
export function HoursLine({ words, hours, onChange }: Props) {
  if (!hours)
    return (
      <RuleLine>
        {words}{' '}
        <YesNoChoice
          label={t`${words}: hours`}
          yes={t`from`}
          no={t`at any hour`}
          value={false}
          onPick={() => onChange({ ...DAY })}
        />
      </RuleLine>
    );
  return (
    <RuleLine>
      <Trans>
        {words}{' '}
        <YesNoChoice
          label={t`${words}: hours`}
          yes={t`from`}
          no={t`at any hour`}
          value
          onPick={() => onChange(null)}
        />{' '}
        <Clocks words={words} span={hours} onChange={(span) => onChange({ ...hours, ...span })} /> where they
        are; at weekends{' '}
        <OtherSpan
          words={t`${words} at weekends`}
          span={weekendOf(hours)}
          like={hours}
          onChange={(span) => onChange(withWeekend(hours, span))}
        />
        , on holidays{' '}
        <OtherSpan
          words={t`${words} on holidays`}
          span={hours.holidays}
          like={hours}
          onChange={(span) => onChange(withHolidays(hours, span))}
        />
        .
      </Trans>
    </RuleLine>
  );
}

/** What both days of the weekend have; where they differ, Saturday's. */
function weekendOf(hours: Hours): HourSpan | null | undefined {
  return hours.days?.sat === undefined ? hours.days?.sun : hours.days.sat;
}

export function withWeekend(hours: Hours, span: HourSpan | null | undefined): Hours {
  const { days = {}, ...rest } = hours;
  const kept = WEEKDAYS.filter((day) => !WEEKEND.includes(day) && days[day] !== undefined).map((day) => [
    day,
    days[day],
  ]);
  const all = Object.fromEntries([
    ...kept,
    ...(span === undefined ? [] : WEEKEND.map((day) => [day, span])),
  ]) as Hours['days'];
  return Object.keys(all!).length === 0 ? rest : { ...rest, days: all };
}

export function withHolidays({ holidays: _was, ...hours }: Hours, span: HourSpan | null | undefined): Hours {
  return span === undefined ? hours : { ...hours, holidays: span };
}

function OtherSpan(props: {
  words: string;
  span: HourSpan | null | undefined;
  like: HourSpan;
  onChange: (span: HourSpan | null | undefined) => void;
}) {
  const { words, span, like, onChange } = props;
  const value: Other = span === undefined ? 'same' : span === null ? 'none' : 'from';
  const pick = (other: Other) =>
    onChange(other === 'same' ? undefined : other === 'none' ? null : { from: like.from, to: like.to });
  return (
    <>
      <Pick label={words} options={OTHER} value={value} onPick={pick} />
      {span && (
        <>
          {' '}
          <Clocks words={words} span={span} onChange={onChange} />
        </>
      )}
    </>
  );
}

function Clocks({
  words,
  span,
  onChange,
}: {
  words: string;
  span: HourSpan;
  onChange: (span: HourSpan) => void;
}) {
  const clock = (end: 'from' | 'to') => (
    <input
      className="input !w-[74px] !min-h-[30px] !py-[3px] leading-normal text-center"
      aria-label={`${words} ${end}`}
      defaultValue={clockOf(span[end])}
      key={`${end}${span[end]}`}
      onBlur={(event) => {
        const minutes = minutesOf(event.target.value);
        if (minutes === null) event.target.value = clockOf(span[end]);
        else onChange({ from: span.from, to: span.to, [end]: minutes });
      }}
    />
  );
  return (
    <Trans>
      {clock('from')} to {clock('to')}
    </Trans>
  );
}
