import { t } from '@lingui/core/macro';
import { STEP_LIMITS } from '@goodword/core/campaigns';
import type { StepView } from '@goodword/core/contract';
import { parseClock } from '@goodword/core/fields';
import { isHandedOver } from '@goodword/core/permission';
import { TypedInWord } from '../../sort/lines/TypedInWord';
import { Word } from '../../sort/lines/Word';
import { timeOfStep, type StepPart } from './planning';

type Change = (part: Partial<StepPart>) => void;

/** When in the day, and by whose clock. */
export function timeWords({ minutes, ownTime }: StepView): string {
  const time = timeOfStep(minutes);
  return ownTime ? t`${time} where they are` : time;
}

/** The time of a step, and by whose clock. */
export function TimeWord({ step, onChange }: { step: StepView; onChange: Change }) {
  return (
    <Word words={timeWords(step)} label={t`Time`}>
      {(close) => (
        <form className="flex flex-col gap-2" onSubmit={(event) => (event.preventDefault(), close())}>
          <TypedInWord
            label={t`Time of day`}
            shown={timeOfStep(step.minutes)}
            hint={t`This is no time. Write it like 17:30.`}
            read={(typed) => parseClock(typed) ?? undefined}
            onTake={(minutes) => onChange({ minutes })}
          />
          {isHandedOver(step.channel) && (
            <label className="flex gap-2 items-center">
              <input
                type="checkbox"
                className="accent-[#0F766B]"
                checked={step.ownTime}
                onChange={() => onChange({ ownTime: !step.ownTime })}
              />
              {t`where each of them is`}
            </label>
          )}
        </form>
      )}
    </Word>
  );
}

const daysIn = (typed: string) =>
  /^\d{1,3}$/.test(typed.trim()) && Number(typed) <= STEP_LIMITS.days ? Number(typed) : undefined;

/** So many days after the first one. */
export function DayWord({ step, words, onChange }: { step: StepView; words: string; onChange: Change }) {
  return (
    <Word words={words} label={t`Days after the first one`}>
      {(close) => (
        <form onSubmit={(event) => (event.preventDefault(), close())}>
          <TypedInWord
            label={t`Days after the first one`}
            shown={String(step.day)}
            hint={t`A number of days, at most ${STEP_LIMITS.days}.`}
            read={daysIn}
            onTake={(day) => onChange({ day })}
          />
        </form>
      )}
    </Word>
  );
}
