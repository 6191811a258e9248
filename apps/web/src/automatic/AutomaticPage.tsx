import { plural, t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { CAUSES, comesAgain } from '@goodword/core/automations';
import { FALL_CAUSES } from '@goodword/core/campaigns';
import type { AutomationWhole } from '@goodword/core/contract';
import { api } from '../app/api';
import { useFormat } from '../app/format';
import { reading } from '../app/reading';
import { refresh } from '../app/refresh';
import { useMay } from '../app/session';
import { CAUSE_WORDS } from '../campaigns/plan/planning';
import { ForWhom } from '../sort/ForWhom';
import { PickWord, Word } from '../sort/lines/Word';
import { Button, Heading, Loading, ProblemNote } from '../ui/basics';
import { Confirm, Drawer } from '../ui/dialogs';
import { useMargin, type Note } from '../ui/margin';
import { AddMessage, AutomaticStep } from './AutomaticStep';
import { CauseWords, useCauseSubjects } from './CauseWords';
import { useChanging, type AutomationPart } from './changing';
import { PeopleOf } from './PeopleOf';
import { SwitchOn } from './SwitchOn';

type Change = (part: Partial<AutomationPart>) => void;

/** What ends it for somebody. */
function StopsWord({ automation: { stops }, onChange }: { automation: AutomationWhole; onChange: Change }) {
  const words = FALL_CAUSES.filter((cause) => stops.includes(cause)).map((cause) => CAUSE_WORDS[cause]);
  return (
    <Word
      words={words.length === 0 ? t`have had all of it` : words.join(', ')}
      label={t`When it is over for somebody`}
    >
      {() =>
        FALL_CAUSES.map((cause) => (
          <label key={cause} className="flex gap-2 items-center px-2 py-1">
            <input
              type="checkbox"
              className="accent-[#0F766B]"
              checked={stops.includes(cause)}
              onChange={() =>
                onChange({
                  stops: stops.includes(cause) ? stops.filter((one) => one !== cause) : [...stops, cause],
                })
              }
            />
            {t`they ${CAUSE_WORDS[cause]}`}
          </label>
        ))
      }
    </Word>
  );
}

/** Whom it does not go to: nobody, or who fits a sentence as the message leaves. */
function UnlessWord({ automation, onChange }: { automation: AutomationWhole; onChange: Change }) {
  const { unless, unlessWords, name } = automation;
  const format = useFormat();
  const [open, setOpen] = useState(false);
  return (
    <>
      <button className="word" onClick={() => setOpen(true)}>
        {unless === null ? t`nobody is left out` : unlessWords}
      </button>
      {unless !== null && (
        <>
          {' '}
          <button
            className="link font-sans text-[13px]"
            onClick={() => onChange({ unless: null })}
          >{t`Leave nobody out`}</button>
        </>
      )}
      <Drawer open={open} onClose={() => setOpen(false)} wide title={t`Who is left out of “${name}”`}>
        {open && (
          <ForWhom
            tree={unless}
            act={t`They are left out`}
            found={({ total, everybody }) => (
              <Trans>
                {format.number(total)} of {format.number(everybody)} people fit it today; who fits it when the
                message leaves gets nothing.
              </Trans>
            )}
            onDone={(rule) => (onChange({ unless: rule }), setOpen(false))}
          />
        )}
      </Drawer>
    </>
  );
}

/** The sentence of an automatic message, to be changed while it is off. */
function Said({ automation, onChange }: { automation: AutomationWhole; onChange: Change }) {
  const subjects = useCauseSubjects();
  if (!subjects) return <Loading what={t`what a sentence can speak of`} />;
  return (
    <div className="font-title text-[19px] leading-[2.05] text-ink2 [&_.word]:text-ink pb-2">
      <p>
        <Trans>
          When{' '}
          <CauseWords
            cause={automation.cause}
            subjects={subjects}
            onChange={(cause, again) => onChange({ cause, ...(again === undefined ? {} : { again }) })}
          />
          ,{' '}
          <PickWord
            label={t`Once or each time`}
            value={comesAgain(automation.cause, automation.again) ? 'each' : 'once'}
            options={[
              ['once', t`once for each person`],
              ...(CAUSES[automation.cause.kind].couldLoop
                ? []
                : [['each', t`each time it happens`] as const]),
            ]}
            onPick={(picked) => onChange({ again: picked === 'each' })}
          />
          , until they <StopsWord automation={automation} onChange={onChange} />.
        </Trans>
      </p>
      <p>
        <Trans>
          It goes to all of them; <UnlessWord automation={automation} onChange={onChange} />.
        </Trans>
      </p>
    </div>
  );
}

/** The same where it is read. */
function Told({ automation: { words, cause, again, stops, unlessWords } }: { automation: AutomationWhole }) {
  const ends = FALL_CAUSES.filter((cause) => stops.includes(cause)).map((cause) => CAUSE_WORDS[cause]);
  return (
    <p className="font-title text-[19px] leading-[1.8] text-ink2 pb-2">
      <b className="text-ink">{t`When ${words}`}</b>
      {', '}
      {comesAgain(cause, again) ? t`each time it happens` : t`once for each person`}
      {ends.length > 0 && t`, until they ${ends.join(', ')}`}
      {unlessWords !== '' && t`; not those who ${unlessWords}`}.
    </p>
  );
}

function notesOf({ on, counts, steps }: AutomationWhole): Note[] {
  const notes: Note[] = [];
  if (counts.held > 0)
    notes.push({
      ...{ key: 'held', tone: 'fault' },
      title: plural(counts.held, {
        one: '# person waits for your look',
        other: '# people wait for your look',
      }),
      body: t`It happened to so many at once. Nothing leaves to them before you say so.`,
    });
  if (on)
    notes.push({
      ...{ key: 'on', tone: 'plain', title: t`It is on` },
      body: t`To change its sentence or its words switch it off; whoever waits keeps waiting meanwhile.`,
    });
  if (!on && counts.waiting > 0)
    notes.push({
      ...{ key: 'waiting', tone: 'doubt', title: t`People wait while it is off` },
      body: t`They get what is due when it is on again.`,
    });
  if (!on && steps.length === 0)
    notes.push({
      ...{ key: 'empty', tone: 'doubt', title: t`It sends nothing yet` },
      body: t`Add a message under the sentence.`,
    });
  return notes;
}

/** An automatic message: its sentence, its messages in a row, and for whom it was set going. */
export default function AutomaticPage() {
  const id = Number(useParams().id);
  const format = useFormat();
  const may = useMay('organizer');
  const navigate = useNavigate();
  const queryClient = useQueryClient();
  const { data, error } = useQuery({
    ...reading('automations/{id}', { id }),
    refetchInterval: ({ state: { data: now } }) => (now?.on ? 5_000 : false),
  });
  const { sentence, wait, takeOut, off } = useChanging(id, data);
  const [switching, setSwitching] = useState(false);
  const [removing, setRemoving] = useState(false);
  const remove = useMutation({
    mutationFn: () => api.delete('automations/{id}', { id }),
    onSuccess: async () => {
      void navigate('/send');
      await refresh(queryClient, 'automations');
    },
  });
  useMargin(data ? notesOf(data) : []);
  if (error) return <ProblemNote error={error} />;
  if (!data) return <Loading what={t`the automatic message`} />;
  const { name, on, onSince, steps, counts } = data;
  const changes = may && !on;
  const isUnused = Object.values(counts).every((n) => n === 0);
  return (
    <div className="flex flex-col gap-4 grow">
      <Heading
        title={name}
        page={t`Automatic: ${name}`}
        note={on && onSince ? t`on since ${format.moment(onSince)}` : t`off: it leaves to nobody`}
      >
        {may && on && (
          <Button once disabled={off.isPending} onClick={() => off.mutate()}>{t`Switch it off`}</Button>
        )}
        {changes && isUnused && <Button onClick={() => setRemoving(true)}>{t`Delete it`}</Button>}
        {changes && (
          <Button weight="main" onClick={() => setSwitching(true)}>{t`Look, and switch it on`}</Button>
        )}
      </Heading>
      <section className="sheet px-6 py-4" aria-label={t`The sentence`}>
        {changes ? (
          <Said automation={data} onChange={(part) => sentence.mutate(part)} />
        ) : (
          <Told automation={data} />
        )}
        <ProblemNote error={sentence.error ?? wait.error ?? takeOut.error ?? off.error} />
        <ol>
          {steps.map((step, i) => (
            <AutomaticStep
              key={step.messageId}
              {...{ id, nth: i + 1, step, changes }}
              ofDay={i === 0 && CAUSES[data.cause.kind].daily}
              busy={takeOut.isPending}
              onWait={(next) => wait.mutate({ step, wait: next })}
              onTakeOut={() => takeOut.mutate(step.messageId)}
            />
          ))}
        </ol>
        {changes && (
          <p className="border-t border-hair pt-3">
            <AddMessage id={id} automation={data} />
          </p>
        )}
      </section>
      <PeopleOf automation={data} />
      {switching && <SwitchOn automation={data} onClose={() => setSwitching(false)} />}
      <Confirm
        open={removing}
        onClose={() => setRemoving(false)}
        title={t`Delete “${name}”?`}
        body={t`The words of its messages stay as drafts.`}
        act={t`Delete it`}
        onAct={() => remove.mutateAsync()}
      />
    </div>
  );
}
