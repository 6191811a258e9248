import { plural, t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useState } from 'react';
import { Link } from 'react-router';
import type { CampaignExpected, CampaignPlan, StepView } from '@goodword/core/contract';
import type { Rule } from '@goodword/core/segment';
import { isHandedOver } from '@goodword/core/permission';
import { ACT_WORDS } from '../../app/channels';
import { useFormat } from '../../app/format';
import { onceOf } from '../../ui/once';
import { Drawer } from '../../ui/dialogs';
import { Word } from '../../sort/lines/Word';
import { ForWhom } from '../../sort/ForWhom';
import { MESSAGE_STATE_WORDS } from '../../send/Outgoing';
import { dayOfStep, type StepPart } from './planning';
import { DayWord, TimeWord, timeWords } from './StepTime';

type Acts = {
  change: (part: Partial<StepPart>) => void;
  takeOut: () => void;
  takeBack: () => void;
  /** A step is being taken out or back. */
  busy: boolean;
};

const messageLine = (messageId: number, event: 'got' | 'clicked', did: boolean): Rule => ({
  ...{ kind: 'message', event, did, messageId, atLeast: 1, window: { over: 'ever' } },
});

/** Whom of the roster a step is for: everybody, by what they did with an earlier step, or by a sentence. */
function WhomWord({
  step,
  earlier,
  onChange,
}: {
  step: StepView;
  earlier: readonly StepView[];
  onChange: Acts['change'];
}) {
  const format = useFormat();
  const [open, setOpen] = useState(false);
  const option = (words: string, rule: Rule | null, close: () => void) => (
    <button
      key={words}
      className="text-left px-2 py-1 rounded-[3px] hover:bg-bench"
      onClick={() => (onChange({ rule }), close())}
    >
      {words}
    </button>
  );
  return (
    <>
      <Word words={step.rule ? t`those who fit` : t`everybody on the roster`} label={t`Whom it is for`}>
        {(close) => (
          <>
            {option(t`everybody on the roster`, null, close)}
            {earlier
              .filter(({ channel }) => isHandedOver(channel))
              .map(({ messageId, name }) => (
                <div key={messageId} className="contents">
                  {option(
                    t`who got “${name}” and clicked no link in it`,
                    {
                      kind: 'all',
                      rules: [messageLine(messageId, 'got', true), messageLine(messageId, 'clicked', false)],
                    },
                    close,
                  )}
                  {option(t`who did not get “${name}”`, messageLine(messageId, 'got', false), close)}
                </div>
              ))}
            <hr className="border-hair my-1" />
            <button
              className="text-left px-2 py-1 rounded-[3px] hover:bg-bench"
              onClick={() => (setOpen(true), close())}
            >
              {t`who fit a sentence of its own…`}
            </button>
          </>
        )}
      </Word>
      {step.rule && (
        <>
          {': '}
          <button
            className="text-left text-[15px] font-sans text-ink2 hover:underline"
            onClick={() => setOpen(true)}
          >
            {step.words}
          </button>
        </>
      )}
      <Drawer open={open} onClose={() => setOpen(false)} wide title={t`Whom “${step.name}” is for`}>
        {open && (
          <ForWhom
            tree={step.rule}
            act={t`The step is for them`}
            found={({ total, everybody }) => (
              <Trans>
                {format.number(total)} of {format.number(everybody)} people fit it today; of the roster those
                get it who fit it when the step leaves.
              </Trans>
            )}
            onDone={(rule) => (onChange({ rule }), setOpen(false))}
          />
        )}
      </Drawer>
    </>
  );
}

/** What is done by people themselves. */
const BY_HAND: Partial<Record<StepView['state'], string>> = {
  posting: t`Post the letters`,
  calling: t`Call them`,
};

/** How it stands with a step, and what can be done about it. */
function Standing({ step, may, acts }: { step: StepView; may: boolean; acts: Acts }) {
  const links = 'font-sans text-[13px] flex flex-wrap items-baseline gap-x-4 gap-y-3 pt-2 leading-normal';
  if (step.state === 'draft')
    return (
      <p className={links}>
        {!step.isReady && (
          <span className="text-ochre">{t`Its words are not ready, or no test went out`}</span>
        )}
        <Link className="link" to={`/write/${step.messageId}`}>
          {step.channel === 'call' ? t`What to say` : step.isReady ? t`Read it` : t`Write it`}
        </Link>
        <Link className="link" to={`/send/${step.messageId}`}>
          {isHandedOver(step.channel) ? t`Test it, and look who gets it` : t`Look who gets it`}
        </Link>
        {may && (
          <button
            className="link"
            disabled={acts.busy}
            onClick={onceOf(acts.takeOut)}
          >{t`Take it out`}</button>
        )}
      </p>
    );
  return (
    <p className={links}>
      <span className="text-verdigris">
        {step.state === 'scheduled' ? t`set going` : MESSAGE_STATE_WORDS[step.state]}
      </span>
      {step.state === 'scheduled' ? (
        may && (
          <button
            className="link"
            disabled={acts.busy}
            onClick={onceOf(acts.takeBack)}
          >{t`Take it back`}</button>
        )
      ) : (
        <Link
          className="link"
          to={BY_HAND[step.state] ? `/send/${step.messageId}` : `/hear-back/${step.messageId}`}
        >
          {BY_HAND[step.state] ?? t`What became of it`}
        </Link>
      )}
    </p>
  );
}

/** One step as a sentence, with how many it would come to now. */
export function PlanStep({
  nth,
  step,
  plan,
  expected,
  may,
  acts,
}: {
  nth: number;
  step: StepView;
  plan: CampaignPlan;
  expected: CampaignExpected['steps'][number] | undefined;
  may: boolean;
  acts: Acts;
}) {
  const format = useFormat();
  const day = dayOfStep(plan.firstDay, step.day);
  const later =
    step.day === 0 ? t`the first day` : plural(step.day, { one: '# day later', other: '# days later' });
  const dayWords = day ? (step.day === 0 ? format.weekday(day) : t`${format.weekday(day)}, ${later}`) : later;
  const changes = may && step.state === 'draft';
  return (
    <li
      className="grid grid-cols-[30px_1fr_120px] gap-x-2 border-t border-hair py-4"
      id={`step-${step.messageId}`}
    >
      <span className="text-[12px] text-ink3 pt-2">{nth}</span>
      <div className="font-title text-[19px] leading-[1.8] text-ink2 [&_.word]:text-ink">
        <p>
          {t`On`}{' '}
          {changes ? (
            <DayWord step={step} words={dayWords} onChange={acts.change} />
          ) : (
            <b className="text-ink">{dayWords}</b>
          )}{' '}
          {t`at`}{' '}
          {changes ? (
            <TimeWord step={step} onChange={acts.change} />
          ) : (
            <b className="text-ink">{timeWords(step)}</b>
          )}
          , {ACT_WORDS[step.channel]}{' '}
          <Link className="text-ink font-bold hover:underline" to={`/write/${step.messageId}`}>
            {step.name}
          </Link>{' '}
          {t`to`}{' '}
          {changes ? (
            <WhomWord step={step} earlier={plan.steps.slice(0, nth - 1)} onChange={acts.change} />
          ) : (
            <b className="text-ink">{step.words || t`everybody on the roster`}</b>
          )}
        </p>
        <Standing step={step} may={may} acts={acts} />
      </div>
      <p className="text-right">
        <b className="font-title text-[19px] block">
          {expected ? t`about ${format.number(expected.reached)}` : format.number(step.went)}
        </b>
        <span className="text-ink2 text-[12.5px]">
          {expected ? t`of ${format.number(expected.group)}` : t`it went to`}
        </span>
      </p>
    </li>
  );
}
