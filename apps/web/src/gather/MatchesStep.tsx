import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useNavigate } from 'react-router';
import { MATCH_KEYS, REFUSAL_STATUSES, type MatchKey } from '@goodword/core/intake';
import { MATCH_KEY_WORDS, REFUSAL_WORDS } from '@goodword/core/words';
import { api } from '../app/api';
import { refresh } from '../app/refresh';
import { useSession } from '../app/session';
import { Button, ProblemNote } from '../ui/basics';
import { useMargin } from '../ui/margin';
import { planOfDraft, stepsOf, useDraft } from './draft';
import { STEP_WORDS } from './stepWords';
import { reading } from '../app/reading';

/**
 * How people are recognized, what happens to those who are here, and what this kind of file needs beside.
 * Then it is checked.
 */
export function MatchesStep() {
  const draft = useDraft();
  const navigate = useNavigate();
  const queryClient = useQueryClient();
  const plan = planOfDraft(draft);
  const { parts, batchId, unsent } = draft;
  const steps = stepsOf(parts.what);
  const before = steps[steps.indexOf('Matches') - 1]!;
  const check = useMutation({
    mutationFn: async () => {
      await draft.save();
      await api.put('batches/{id}/plan', { id: batchId!, body: plan! });
    },
    onSuccess: () => {
      const id = batchId;
      draft.reset();
      refresh(queryClient, 'batches');
      void navigate(`/gather/${id}`);
    },
  });
  useMargin([
    {
      key: 'doubt',
      tone: 'plain',
      title: t`Likely doubles are never merged by themselves`,
      body: t`A short form, a misspelling, names that changed places: you see them side by side before anything comes in.`,
    },
  ]);
  return (
    <>
      <div className="sheet grow min-h-0 overflow-y-auto p-6 grid grid-cols-2 gap-8 content-start">
        <Keys />
        <div className="flex flex-col gap-6">
          {parts.what === 'people' && <Existing />}
          {parts.what === 'gifts' && <Strangers />}
          {parts.what === 'refusals' && <WhatTheyDid />}
          <Telling />
        </div>
      </div>
      <ProblemNote error={check.error} />
      <div className="flex justify-between pt-3">
        <Button onClick={() => draft.go(before)}>
          <Trans>Back to {STEP_WORDS[before].toLowerCase()}</Trans>
        </Button>
        <Button
          weight="main"
          disabled={!plan || batchId === null || check.isPending}
          onClick={() => check.mutate()}
        >
          {batchId !== null
            ? t`Next: check the batch`
            : unsent
              ? t`The server does not have the file`
              : t`Handing the file over…`}
        </Button>
      </div>
    </>
  );
}

/** The order in which somebody is looked for. */
function Keys() {
  const { parts, set } = useDraft();
  // A draft of before may name a key that decides no longer.
  const matching = parts.matching.filter((key) => MATCH_KEYS.includes(key));
  const move = (key: MatchKey, by: number) => {
    const at = matching.indexOf(key);
    const next = matching.filter((one) => one !== key);
    next.splice(Math.max(0, at + by), 0, key);
    set({ matching: next });
  };
  const toggle = (key: MatchKey) =>
    set({ matching: matching.includes(key) ? matching.filter((one) => one !== key) : [...matching, key] });
  return (
    <fieldset className="flex flex-col gap-1">
      <legend className="subtitle pb-2">{t`Somebody is here already when they have the same`}</legend>
      <ol className="flex flex-col">
        {[...matching, ...MATCH_KEYS.filter((key) => !matching.includes(key))].map((key, i) => {
          const on = matching.includes(key);
          return (
            <li key={key} className="flex items-center gap-3 border-b border-hair py-2">
              <label className="flex items-center gap-3 grow">
                <input
                  type="checkbox"
                  className="accent-[#0F766B]"
                  checked={on}
                  onChange={() => toggle(key)}
                />
                <span className={on ? '' : 'text-ink3'}>
                  {on ? `${i + 1}. ` : ''}
                  {MATCH_KEY_WORDS[key]}
                </span>
              </label>
              {on && (
                <>
                  <Button
                    aria-label={t`${MATCH_KEY_WORDS[key]} earlier`}
                    disabled={i === 0}
                    onClick={() => move(key, -1)}
                  >
                    ↑
                  </Button>
                  <Button
                    aria-label={t`${MATCH_KEY_WORDS[key]} later`}
                    disabled={i === matching.length - 1}
                    onClick={() => move(key, 1)}
                  >
                    ↓
                  </Button>
                </>
              )}
            </li>
          );
        })}
      </ol>
      <p className="text-ink2 pt-2">
        <Trans>
          The first that finds somebody whose name agrees decides. The same address under another name is
          somebody who shares it: a household stays two people. The same name in the same postcode is only
          likely, and waits for a look.
        </Trans>
      </p>
    </fieldset>
  );
}

interface Option {
  value: string;
  words: string;
  hint: string;
}

function Options({
  name,
  title,
  options,
  value,
  onChoose,
}: {
  name: string;
  title: string;
  options: Option[];
  value: string;
  onChoose: (value: string) => void;
}) {
  return (
    <fieldset className="flex flex-col gap-1">
      <legend className="subtitle pb-1">{title}</legend>
      {options.map((option) => (
        <label key={option.value} className="flex gap-3 items-start py-1">
          <input
            type="radio"
            name={name}
            className="mt-1 accent-[#0F766B]"
            checked={value === option.value}
            onChange={() => onChoose(option.value)}
          />
          <span>
            <b>{option.words}</b>
            <span className="block text-ink2">{option.hint}</span>
          </span>
        </label>
      ))}
    </fieldset>
  );
}

function Existing() {
  const { parts, set } = useDraft();
  return (
    <Options
      name="existing"
      title={t`People who are here already`}
      value={parts.existing}
      onChoose={(existing) => set({ existing: existing as 'update' | 'fill' | 'leave' })}
      options={[
        {
          value: 'update',
          words: t`Update them`,
          hint: t`A value that is there replaces; an empty one never erases. Tags, lists and permission are added.`,
        },
        {
          value: 'fill',
          words: t`Fill only what is empty`,
          hint: t`What we know of them stays as it is. Tags, lists and permission are added.`,
        },
        { value: 'leave', words: t`Leave them as they are`, hint: t`Only new people come in.` },
      ]}
    />
  );
}

function Strangers() {
  const { parts, set } = useDraft();
  return (
    <Options
      name="strangers"
      title={t`Gifts of people who are not here`}
      value={parts.strangers}
      onChoose={(strangers) => set({ strangers: strangers as 'bring-in' | 'leave' })}
      options={[
        { value: 'leave', words: t`Leave them out`, hint: t`They can be downloaded with the reason.` },
        {
          value: 'bring-in',
          words: t`Bring the people in too`,
          hint: t`They come in as never asked: a gift is no yes.`,
        },
      ]}
    />
  );
}

function WhatTheyDid() {
  const { parts, set, columns } = useDraft();
  const hasColumn = columns.some(({ to }) => to === 'status');
  return (
    <Options
      name="refusal"
      title={hasColumn ? t`Where the status is empty, they` : t`These people`}
      value={parts.refusal ?? ''}
      onChoose={(refusal) =>
        set({ refusal: refusal === '' ? null : (refusal as (typeof REFUSAL_STATUSES)[number]) })
      }
      options={[
        ...(hasColumn
          ? [
              {
                value: '',
                words: t`Are left out`,
                hint: t`Only rows whose status says what they did are recorded.`,
              },
            ]
          : []),
        ...REFUSAL_STATUSES.map((status) => {
          const [words, hint] = REFUSAL_WORDS[status].split(': ');
          return { value: status, words: words!, hint: hint! };
        }),
      ]}
    />
  );
}

/** Who gets a mail when it is in; Today tells everyone. */
function Telling() {
  const { parts, set } = useDraft();
  const { teammate } = useSession();
  const team = useQuery(reading('session/teammates'));
  const toggle = (id: number) =>
    set({
      notify: parts.notify.includes(id) ? parts.notify.filter((one) => one !== id) : [...parts.notify, id],
    });
  return (
    <fieldset className="border-t border-hair pt-4">
      <legend className="subtitle pb-1 float-left w-full">{t`When it is in, mail`}</legend>
      {team.data?.map((one) => (
        <label key={one.id} className="flex gap-3 items-center py-[3px] clear-both">
          <input
            type="checkbox"
            className="accent-[#0F766B]"
            checked={parts.notify.includes(one.id)}
            onChange={() => toggle(one.id)}
          />
          {one.id === teammate.id ? t`${one.name}, me` : one.name}
        </label>
      ))}
      <p className="text-ink2">{t`Today tells it in any case.`}</p>
    </fieldset>
  );
}
