import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import type { ComparisonView } from '@goodword/core/contract';
import type { Channel } from '@goodword/core/permission';
import { peopleToTell, toldFrom } from '@goodword/core/results';
import { measuresOn, type Comparison } from '@goodword/core/wordings';
import { api } from '../app/api';
import { useFormat } from '../app/format';
import { keyOf } from '../app/reading';
import { useMay } from '../app/session';
import { PickWord } from '../sort/lines/Word';
import { ProblemNote } from '../ui/basics';
import { savingComparison } from './useComparison';
import { waitedWords, MEASURE_WORDS, USUAL_SHARE } from './measures';

const SHARES = [5, 10, 20, 30, 40, 50, 100];
const HOURS = [1, 2, 4, 8, 24, 48, 72, 168];
/** With fewer each nothing is said of what they could tell. */
const TOO_FEW = 20;

/** What is chosen, and what else can be; what was said before is one of it. */
const among = (usual: readonly number[], value: number) =>
  usual.includes(value) ? usual : [...usual, value].sort((a, b) => a - b);

/** What so many each can tell from one another, and what a small difference would need. */
function Enough({ comparison, people }: { comparison: ComparisonView; people: number }) {
  const format = useFormat();
  const each = Math.floor((people * comparison.share) / 100 / comparison.wordings.length);
  const usual = USUAL_SHARE[comparison.measure];
  const told = each < TOO_FEW ? null : toldFrom(usual, each);
  const small = usual + 0.01;
  const about = format.number(each);
  const need = format.number(peopleToTell(usual, small));
  const [base, next] = [format.percent(usual), format.percent(small)];
  const seen = told === null ? '' : format.percent(told);
  return (
    <p className="text-ink2 text-[13px] pt-1">
      {told === null
        ? t`About ${about} people get each first: too few to tell a difference by.`
        : t`About ${about} people get each first: enough to tell ${base} from ${seen}, and nothing smaller.`}{' '}
      {t`To tell ${base} from ${next} you need ${need} each.`}
      {comparison.measure === 'opened' &&
        ` ${t`Opens are unsure: some readers load pictures by themselves, some never.`}`}
    </p>
  );
}

/** How the wordings of a message are compared, as a sentence; and what so many people can tell. */
export function ComparisonSentence({
  comparison,
  channel,
  people,
  onChange,
}: {
  comparison: ComparisonView;
  channel: Channel;
  /** Whom the message reaches; null while they are counted. */
  people: number | null;
  onChange: () => void;
}) {
  const format = useFormat();
  const may = useMay('writer');
  const queryClient = useQueryClient();
  const { messageId: id, share, measure, hours, version } = comparison;
  const save = useMutation({
    mutationKey: savingComparison(id),
    mutationFn: (part: Partial<Comparison>) =>
      api.put('messages/{id}/comparison', {
        id,
        body: { share, measure, hours, ...part, basedOn: version },
      }),
    onSettled: async () => {
      await queryClient.invalidateQueries({ queryKey: keyOf('messages/{id}/comparison', { id }) });
      onChange();
    },
  });
  const shares = among(SHARES, share).map((one): [number, string] => [one, format.percent(one / 100)]);
  const all = format.number(comparison.wordings.length);
  const shareWord = may ? (
    <PickWord
      label={t`How many get one of them first`}
      value={share}
      options={shares}
      onPick={(picked) => save.mutate({ share: picked })}
    />
  ) : (
    <b>{format.percent(share / 100)}</b>
  );
  const measureWord = may ? (
    <PickWord
      label={t`By what the better one is told`}
      value={measure}
      options={measuresOn(channel).map((one) => [one, MEASURE_WORDS[one]] as const)}
      onPick={(picked) => save.mutate({ measure: picked })}
    />
  ) : (
    <b>{MEASURE_WORDS[measure]}</b>
  );
  const hoursWord = may ? (
    <PickWord
      label={t`How long is waited`}
      value={hours}
      options={among(HOURS, hours).map((one) => [one, waitedWords(one)] as const)}
      onPick={(picked) => save.mutate({ hours: picked })}
    />
  ) : (
    <b>{waitedWords(hours)}</b>
  );
  return (
    <section className="sheet px-5 py-3 mt-3 text-[15px]" aria-label={t`How the wordings are compared`}>
      <p>
        {share === 100 ? (
          <Trans>
            {shareWord} of them get one of {all} wordings, as many of each, by lot. Told afterwards: which{' '}
            {measureWord}.
          </Trans>
        ) : (
          <Trans>
            {shareWord} of them get one of {all} wordings first, as many of each, by lot. {hoursWord} after
            the last of these has left, the rest gets the one that {measureWord}; the first, where no
            difference is seen.
          </Trans>
        )}
      </p>
      {people !== null && people > 0 && <Enough comparison={comparison} people={people} />}
      <ProblemNote error={save.error} />
    </section>
  );
}
