import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { CalendarDays } from 'lucide-react';
import { Popover } from 'radix-ui';
import { useEffect, useId, useState, type ComponentProps } from 'react';
import { DayPicker } from 'react-day-picker';
import { isoDay, parseIsoDay } from '@goodword/core/common';
import { parseClock, parseDayWords } from '@goodword/core/fields';
import { clockWords } from '@goodword/core/permission';
import { momentOf, wallTimeOf } from '@goodword/core/schedule';
import { localDay } from '../app/day';
import { useSession } from '../app/session';

/** Whether a place writes the month before the day. */
function dayOrder(locale: string): 'day-first' | 'month-first' {
  const parts = new Intl.DateTimeFormat(locale).formatToParts(new Date());
  const at = (type: string) => parts.findIndex((part) => part.type === type);
  return at('month') < at('day') ? 'month-first' : 'day-first';
}

const PAPER = {
  root: 'relative',
  month_caption: 'subtitle px-1 pb-2',
  nav: 'absolute right-0 top-0 flex gap-1',
  button_previous: 'border border-[#8b989d] rounded-paper w-7 h-7 grid place-items-center hover:bg-bench',
  button_next: 'border border-[#8b989d] rounded-paper w-7 h-7 grid place-items-center hover:bg-bench',
  chevron: 'w-4 h-4',
  weekday: 'text-ink2 text-[12px] font-normal w-9 h-7',
  day: 'p-0 text-center',
  day_button: 'w-9 h-9 rounded-paper hover:bg-bench',
  selected: 'bg-ink text-white rounded-paper font-bold [&_button:hover]:bg-slate',
  today: 'underline decoration-2 underline-offset-4',
  outside: 'text-ink3',
  disabled: 'opacity-40',
};

/** A calendar of one month; days are ISO days and mean no moment, so that no zone moves them. */
function Calendar({
  value,
  min,
  max,
  onPick,
}: {
  value: string;
  min?: string;
  max?: string;
  onPick: (iso: string) => void;
}) {
  const { organization } = useSession();
  const dated = (iso: string) => new Date(`${iso}T00:00:00Z`);
  const chosen = value ? dated(value) : undefined;
  const weekStartsOn =
    ((new Intl.Locale(organization.locale) as { getWeekInfo?: () => { firstDay: number } }).getWeekInfo?.()
      .firstDay ?? 7) % 7;
  return (
    <DayPicker
      mode="single"
      timeZone="UTC"
      noonSafe
      showOutsideDays
      autoFocus
      weekStartsOn={weekStartsOn as 0 | 1 | 6}
      selected={chosen}
      defaultMonth={chosen ?? dated(localDay())}
      today={dated(localDay())}
      disabled={[...(min ? [{ before: dated(min) }] : []), ...(max ? [{ after: dated(max) }] : [])]}
      onSelect={(day) =>
        day &&
        onPick(
          [day.getFullYear(), day.getMonth() + 1, day.getDate()]
            .map((part) => String(part).padStart(2, '0'))
            .join('-'),
        )
      }
      formatters={{
        formatCaption: (month) =>
          new Intl.DateTimeFormat(organization.locale, { month: 'long', year: 'numeric' }).format(month),
      }}
      classNames={PAPER}
    />
  );
}

type Typed = Omit<ComponentProps<'input'>, 'value' | 'onChange' | 'type' | 'min' | 'max'>;

/** The day that was typed, in the manner of the place; null where it is none. */
const dayIn = (typed: string, locale: string) =>
  typed.trim() === '' ? null : parseDayWords(typed, parseIsoDay(localDay())!, dayOrder(locale));

const NO_DAY = t`This is no day. Write it like 2027-03-15, or “in 3 days”.`;

/** A day: typed as people of the place type one, or picked. `value` is an ISO day, or empty. */
export function DayField({
  value,
  onChange,
  min,
  max,
  className = 'input',
  onBlur,
  onUnread,
  ...rest
}: Typed & {
  value: string;
  onChange: (iso: string) => void;
  min?: string;
  max?: string;
  /** Told whether something stands there that is no day, or not one that may be. */
  onUnread?: (unread: boolean) => void;
}) {
  const { organization } = useSession();
  const [typed, setTyped] = useState(value);
  const [open, setOpen] = useState(false);
  const [wrong, setWrong] = useState('');
  const hint = useId();
  useEffect(() => (setTyped(value), setWrong('')), [value]);
  const read = () => dayIn(typed, organization.locale);
  const unread = wrong !== '' || (typed.trim() !== '' && read() === null);
  useEffect(() => onUnread?.(unread), [unread]);
  const take = (iso: string) => {
    if (max && iso > max) return setWrong(t`Not after ${max}`);
    if (min && iso !== '' && iso < min) return setWrong(t`Not before ${min}`);
    setWrong('');
    onChange(iso);
  };
  return (
    <span className={`relative ${className === 'input' ? 'block' : 'inline-block align-middle'}`}>
      <input
        {...rest}
        type="text"
        autoComplete="off"
        inputMode="numeric"
        placeholder={rest.placeholder ?? '2027-03-15'}
        className={`${className} !pr-8`}
        aria-invalid={wrong !== '' || undefined}
        aria-describedby={wrong ? hint : undefined}
        value={typed}
        onChange={(event) => {
          setTyped(event.target.value);
          if (event.target.value === '') take('');
          else if (parseIsoDay(event.target.value) !== null) take(event.target.value);
        }}
        onBlur={(event) => {
          const day = read();
          if (day !== null) {
            setTyped(isoDay(day));
            take(isoDay(day));
          }
          // On the way to the calendar nothing is said of what can't be read.
          else if (typed.trim() !== '' && !event.relatedTarget?.closest('[data-pick]')) setWrong(NO_DAY);
          onBlur?.(event);
        }}
      />
      <Popover.Root open={open} onOpenChange={setOpen}>
        <Popover.Trigger
          type="button"
          data-pick
          className="absolute right-1 top-1/2 -translate-y-1/2 p-1 text-ink2 hover:text-ink"
          aria-label={t`Pick a day`}
          disabled={rest.disabled}
          onBlur={() => unread && !open && setWrong(NO_DAY)}
        >
          <CalendarDays size={16} aria-hidden="true" />
        </Popover.Trigger>
        <Popover.Portal>
          <Popover.Content className="sheet p-3 z-40" sideOffset={6} align="end">
            <Calendar
              value={parseIsoDay(value) === null ? '' : value}
              min={min}
              max={max}
              onPick={(iso) => (take(iso), setOpen(false))}
            />
          </Popover.Content>
        </Popover.Portal>
      </Popover.Root>
      {wrong && (
        <span id={hint} role="alert" className="block text-madder text-[12.5px] font-normal">
          {wrong}
        </span>
      )}
    </span>
  );
}

/** The moment of a day and a time in the organization's zone. */
const isoMoment = (day: string, minutes: number, zone: string): string =>
  new Date(momentOf({ day: parseIsoDay(day)!, minutes }, zone).at).toISOString();

/**
 * A moment as the organization's clocks tell it, whatever the browser's own zone: a day and a time, with the
 * zone beside them. `value` is an ISO moment, or empty; it changes when both are there.
 */
export function MomentField({
  label,
  value,
  onChange,
  onUnread,
}: {
  label: string;
  value: string;
  onChange: (iso: string) => void;
  /** Told whether something stands there that is no moment: nothing is to be taken for "now" meanwhile. */
  onUnread?: (unread: boolean) => void;
}) {
  const { timeZone } = useSession().organization;
  const [day, setDay] = useState('');
  const [time, setTime] = useState('');
  useEffect(() => {
    if (value === '') return;
    const local = wallTimeOf(Date.parse(value), timeZone);
    setDay(isoDay(local.day));
    setTime(clockWords(local.minutes));
  }, [value, timeZone]);
  const [dayUnread, setDayUnread] = useState(false);
  const unread = dayUnread || (day !== '' && parseClock(time) === null);
  useEffect(() => onUnread?.(unread), [unread]);
  const told = (nextDay: string, nextTime: string) => {
    const minutes = parseClock(nextTime);
    onChange(nextDay !== '' && minutes !== null ? isoMoment(nextDay, minutes, timeZone) : '');
  };
  return (
    <span role="group" aria-label={label} className="inline-flex items-center gap-2">
      <DayField
        aria-label={t`${label}: day`}
        className="input !w-[140px]"
        value={day}
        min={localDay()}
        placeholder="now"
        onUnread={setDayUnread}
        onChange={(next) => {
          const clock = next === '' ? '' : time || '10:00';
          setDay(next);
          setTime(clock);
          told(next, clock);
        }}
      />
      {day !== '' && (
        <Trans>
          at
          <input
            aria-label={t`${label}: time`}
            className="input !w-[74px]"
            placeholder="10:00"
            value={time}
            aria-invalid={(time !== '' && parseClock(time) === null) || undefined}
            onChange={(event) => setTime(event.target.value)}
            onBlur={() => told(day, time)}
            onKeyDown={(event) => event.key === 'Enter' && told(day, time)}
          />
          <span className="text-ink2">{zoneWords(timeZone)}</span>
        </Trans>
      )}
    </span>
  );
}

/** "Los Angeles time" of "America/Los_Angeles". */
export function zoneWords(zone: string): string {
  return zone === 'UTC' ? 'UTC' : `${zone.split('/').at(-1)!.replaceAll('_', ' ')} time`;
}
