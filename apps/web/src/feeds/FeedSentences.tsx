import { plural, t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { FeedWhole } from '@goodword/core/contract';
import type { FeedPlan, Gone } from '@goodword/core/feeds';
import { NO_CLOSES, type NoCloses } from '@goodword/core/intake';
import { useLists, useTags } from '../app/groups';
import { reading } from '../app/reading';
import { Loading, ProblemNote } from '../ui/basics';
import { FeedClockWord } from './FeedClockWord';
import { FeedColumns } from './FeedColumns';
import { FeedPermission } from './FeedPermission';
import { FeedOpen, Open, FeedPick, Tick, withOrWithout } from './FeedWord';
import { NewListHere } from './NewListHere';

type Change = (part: Partial<FeedPlan>) => void;

/** From where, what, and of which filter. */
function TakeSentence({ feed, onChange }: { feed: FeedWhole; onChange: Change }) {
  const { id, source, plan, records } = feed;
  const { data, error } = useQuery({
    ...reading('feeds/{id}/offer', { id }),
    enabled: !feed.on,
    retry: false,
  });
  const types = data?.types ?? [];
  const type = types.find(({ key }) => key === plan.take?.type.key);
  const known = plan.take ? [{ ...plan.take.type, filters: [] }] : [];
  const filters = type?.filters ?? (plan.take?.filter ? [plan.take.filter] : []);
  const pick = (typeKey: string, filterKey: string) => {
    const of = types.find(({ key }) => key === typeKey);
    const filter = of?.filters.find(({ key }) => key === filterKey) ?? null;
    if (!of) return;
    onChange({ take: { type: { key: of.key, name: of.name }, filter: filter && { ...filter } } });
  };
  return (
    <>
      <p>
        <Trans>
          From <b className="text-ink">{source.name}</b> take{' '}
          <FeedPick
            label={t`What is taken`}
            value={plan.take?.type.key ?? ''}
            options={(types.length > 0 ? types : known).map(({ key, name }) => [key, name] as const)}
            onPick={(key) => pick(key, '')}
          />
          ,{' '}
          <FeedPick
            label={t`Everybody, or of a filter`}
            value={plan.take?.filter?.key ?? ''}
            options={[
              ['', t`everybody`],
              ...filters.map(({ key, name }) => [key, t`of the filter “${name}”`] as const),
            ]}
            onPick={(key) => plan.take && pick(plan.take.type.key, key)}
          />
          ;
        </Trans>
      </p>
      {!data && !error && !feed.on && records === 0 && <Loading what={t`what there is over there`} />}
      <ProblemNote error={error} />
    </>
  );
}

/** The names of those that are chosen. */
const namesOf = (all: readonly { id: number; name: string }[], ids: readonly number[]): string =>
  all
    .filter(({ id }) => ids.includes(id))
    .map(({ name }) => name)
    .join(', ');

function ListsWord({ plan, onChange }: { plan: FeedPlan; onChange: Change }) {
  const { data: lists = [] } = useLists();
  const [making, setMaking] = useState(false);
  return (
    <>
      <Open words={namesOf(lists, plan.listIds) || t`no list`} label={t`Onto which lists`}>
        {(close) => (
          <>
            {lists.map(({ id, name }) => (
              <Tick
                key={id}
                on={plan.listIds.includes(id)}
                onTick={() => onChange({ listIds: withOrWithout(plan.listIds, id) })}
              >
                {name}
              </Tick>
            ))}
            <button
              className="link text-left mx-2 my-1 self-start"
              onClick={() => (close(), setMaking(true))}
            >{t`Make a list`}</button>
          </>
        )}
      </Open>
      {making && (
        <NewListHere
          onClose={() => setMaking(false)}
          onMade={(listId) => (setMaking(false), onChange({ listIds: [...plan.listIds, listId] }))}
        />
      )}
    </>
  );
}

function TagsWord({ plan, onChange }: { plan: FeedPlan; onChange: Change }) {
  const { data: tags = [] } = useTags();
  const words = plan.tagIds.length === 0 ? t`no tag` : t`the tag ${namesOf(tags, plan.tagIds)}`;
  return (
    <Open words={words} label={t`With which tags`}>
      {() =>
        tags.map(({ id, name }) => (
          <Tick
            key={id}
            on={plan.tagIds.includes(id)}
            onTick={() => onChange({ tagIds: withOrWithout(plan.tagIds, id) })}
          >
            {name}
          </Tick>
        ))
      }
    </Open>
  );
}

/** Onto which lists and tags, and with which columns. */
function IntoSentence({ feed, onChange }: { feed: FeedWhole; onChange: Change }) {
  const { plan } = feed;
  const [matching, setMatching] = useState(false);
  const columns =
    plan.columns.length === 0
      ? t`no column is matched yet`
      : plural(plan.columns.length, { one: '# column matched', other: '# columns matched' });
  return (
    <p>
      <Trans>
        put them on <ListsWord plan={plan} onChange={onChange} /> with{' '}
        <TagsWord plan={plan} onChange={onChange} />,{' '}
        <ColumnsWord words={columns} isReady={plan.take !== null} onOpen={() => setMatching(true)} />; who is
        here already{' '}
        <FeedPick
          label={t`Who is here already`}
          value={plan.existing}
          options={[
            ['update', t`is updated`],
            ['fill', t`gets what is missing`],
            ['leave', t`stays as they are`],
          ]}
          onPick={(existing) => onChange({ existing })}
        />
        .
      </Trans>
      {matching && (
        <FeedColumns
          {...{ id: feed.id, plan }}
          onClose={() => setMatching(false)}
          onDone={(part) => (setMatching(false), onChange(part))}
        />
      )}
    </p>
  );
}

function ColumnsWord({ words, isReady, onOpen }: { words: string; isReady: boolean; onOpen: () => void }) {
  return (
    <FeedOpen.Consumer>
      {(open) =>
        open && isReady ? (
          <button className="word" onClick={onOpen}>
            {words}
          </button>
        ) : (
          <b className="text-ink">{words}</b>
        )
      }
    </FeedOpen.Consumer>
  );
}

const NO_WORDS: Record<NoCloses, string> = {
  agreed: t`is a no here to what they agreed to`,
  channel: t`is a no here to all of that channel`,
  everything: t`is a no here to everything`,
};

/** What a no over there does here, and one here over there; what becomes of who is gone. */
function NoSentence({ feed, onChange }: { feed: FeedWhole; onChange: Change }) {
  const { plan, source } = feed;
  const { data: tags = [] } = useTags();
  const value = plan.gone.do === 'tag' ? `tag:${plan.gone.tagId}` : plan.gone.do;
  const goneOf = (picked: string): Gone =>
    picked === 'stay' || picked === 'leave' ? { do: picked } : { do: 'tag', tagId: Number(picked.slice(4)) };
  return (
    <p>
      <Trans>
        Who says no there{' '}
        <FeedPick
          label={t`What a no does`}
          value={plan.no}
          options={NO_CLOSES.map((no) => [no, NO_WORDS[no]] as const)}
          onPick={(no) => onChange({ no })}
        />
        ;{' '}
        {source.kind === 'desk' && (
          <>
            {t`who says no here`}{' '}
            <FeedPick
              label={t`What a no here does there`}
              value={plan.tell ? 'tell' : 'not'}
              options={[
                ['tell', t`is told to ${source.name}`],
                ['not', t`is not told there`],
              ]}
              onPick={(picked) => onChange({ tell: picked === 'tell' })}
            />
            {'; '}
          </>
        )}
        who is gone there{' '}
        <FeedPick
          label={t`Who is gone there`}
          value={value}
          options={[
            ['stay', t`stays as they are`],
            ['leave', t`leaves the list`],
            ...tags.map(({ id, name }) => [`tag:${id}`, t`gets the tag “${name}”`] as const),
          ]}
          onPick={(picked) => onChange({ gone: goneOf(picked) })}
        />
        .
      </Trans>
    </p>
  );
}

function WhenSentence({ feed, onChange }: { feed: FeedWhole; onChange: Change }) {
  const { plan, source } = feed;
  const { when } = plan;
  return (
    <p>
      <Trans>
        Look{' '}
        {source.kind === 'desk' && (
          <>
            <FeedPick
              label={t`At once`}
              value={when.atOnce ? 'yes' : 'no'}
              options={[
                ['yes', t`at once`],
                ['no', t`not at once`],
              ]}
              onPick={(picked) =>
                onChange({
                  when: {
                    ...when,
                    atOnce: picked === 'yes',
                    every: when.every ?? { unit: 'days', n: 1, at: 120 },
                  },
                })
              }
            />
            {when.atOnce ? t`, and for what was missed` : t`, but`}{' '}
          </>
        )}
        <FeedClockWord
          every={when.every}
          mayNever={when.atOnce}
          onChange={(every) => onChange({ when: { ...when, every } })}
        />
        .
      </Trans>
    </p>
  );
}

/** A feed as its sentences, to be finished from top to bottom. */
export function FeedSentences({
  feed,
  changes,
  onChange,
}: {
  feed: FeedWhole;
  changes: boolean;
  onChange: Change;
}) {
  return (
    <FeedOpen.Provider value={changes}>
      <div className="font-title text-[19px] leading-[2.05] text-ink2 [&_.word]:text-ink">
        <TakeSentence feed={feed} onChange={onChange} />
        <IntoSentence feed={feed} onChange={onChange} />
        <FeedPermission plan={feed.plan} onChange={onChange} />
        <NoSentence feed={feed} onChange={onChange} />
        <WhenSentence feed={feed} onChange={onChange} />
      </div>
    </FeedOpen.Provider>
  );
}
