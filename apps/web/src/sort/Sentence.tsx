import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { X } from 'lucide-react';
import type { CountedStep } from '@goodword/core/contract';
import { isGroup, TREE_LIMITS, type Group, type Line, type Rule } from '@goodword/core/segment';
import { useFormat } from '../app/format';
import { useSession } from '../app/session';
import { replaceAt, withOr } from './lines/sentence';
import { newLines, SentenceLine } from './lines/SentenceLine';
import type { Subjects } from './lines/subjects';
import { PickWord, Word } from './lines/Word';

const JOINS = [
  ['all', 'and'],
  ['any', 'or'],
] as const;

const GROUPS: [Group['kind'], string][] = [
  ['any', t`fit at least one of these:`],
  ['all', t`fit all of these:`],
  ['none', t`fit none of these:`],
];

/** What joins a rule to the one before it. */
const BETWEEN: Record<Group['kind'], string> = { all: 'and', any: 'or', none: 'nor' };

function AddRule({
  words,
  subjects,
  nests,
  onAdd,
}: {
  words: string;
  subjects: Subjects;
  nests: boolean;
  onAdd: (rule: Rule) => void;
}) {
  const first: Line = { kind: 'gave', did: true, atLeast: null, window: { over: 'this-year' } };
  const option = (text: string, rule: Rule, close: () => void) => (
    <button
      key={text}
      className="text-left px-2 py-1 rounded-[3px] hover:bg-bench"
      onClick={() => (onAdd(rule), close())}
    >
      {text}
    </button>
  );
  return (
    <span className="[&_.word]:!border [&_.word]:!border-dashed [&_.word]:!border-[#8b989d] [&_.word]:rounded-paper [&_.word]:!px-3 [&_.word]:text-[14px] [&_.word]:font-sans [&_.word]:font-semibold">
      <Word words={words} label={t`Add a line`}>
        {(close) => (
          <>
            {newLines(subjects).map(([text, line]) => option(`who ${text}`, line, close))}
            {nests && <hr className="border-hair my-1" />}
            {nests && option(t`who fit at least one of several`, { kind: 'any', rules: [first] }, close)}
            {nests && option(t`who fit none of several`, { kind: 'none', rules: [first] }, close)}
          </>
        )}
      </Word>
    </span>
  );
}

interface RuleProps {
  rule: Rule;
  step: CountedStep | undefined;
  subjects: Subjects;
  depth: number;
  onChange: (rule: Rule | null) => void;
}

/** A line, or a group of rules with its own lines below it. */
function RuleWords({ rule, step, subjects, depth, onChange }: RuleProps) {
  if (!isGroup(rule)) return <SentenceLine line={rule} subjects={subjects} onChange={onChange} />;
  return (
    <>
      <PickWord
        label={t`How these count`}
        value={rule.kind}
        tone={rule.kind === 'none' ? 'no' : undefined}
        options={GROUPS}
        onPick={(kind) => onChange({ ...rule, kind })}
      />
      <Rules
        group={rule}
        steps={step?.inner}
        subjects={subjects}
        depth={depth + 1}
        onChange={(next) => onChange(next.rules.length === 0 ? null : next)}
      />
    </>
  );
}

/** The rules of a group, numbered, each with how many pass it alone. */
function Rules({
  group,
  steps,
  subjects,
  depth,
  onChange,
}: {
  group: Group;
  steps: readonly CountedStep[] | undefined;
  subjects: Subjects;
  depth: number;
  onChange: (group: Group) => void;
}) {
  const format = useFormat();
  const nests = depth < TREE_LIMITS.depth - 1;
  return (
    <ol className={depth > 0 ? 'border-l-2 border-hair pl-3' : ''}>
      {group.rules.map((rule, i) => (
        <li key={i} className="grid grid-cols-[26px_1fr_auto_22px] items-baseline gap-x-1">
          <span className="text-[12px] font-sans text-ink3">
            {depth % 2 === 0 ? i + 1 : String.fromCharCode(97 + i)}
          </span>
          <div>
            {i > 0 &&
              (depth === 0 && i === 1 ? (
                <PickWord
                  label={t`Join all lines by`}
                  value={group.kind === 'any' ? 'any' : 'all'}
                  options={JOINS}
                  onPick={(kind) => onChange({ ...group, kind })}
                />
              ) : (
                BETWEEN[group.kind]
              ))}{' '}
            <RuleWords
              rule={rule}
              step={steps?.[i]}
              subjects={subjects}
              depth={depth}
              onChange={(next) => onChange(replaceAt(group, i, next))}
            />{' '}
            {!isGroup(rule) && nests && group.kind === 'all' && (
              <AddRule
                words={t`or…`}
                subjects={subjects}
                nests={false}
                onAdd={(line) => onChange(replaceAt(group, i, withOr(rule, line)))}
              />
            )}
          </div>
          <span className="text-[13px] font-sans text-ink3 tabular-nums" title={t`Pass this line alone`}>
            {steps?.[i] ? format.number(steps[i].alone) : ''}
          </span>
          <button
            className="text-ink3 hover:text-madder"
            aria-label={t`Remove line ${i + 1}`}
            onClick={() => onChange(replaceAt(group, i, null))}
          >
            <X size={15} />
          </button>
        </li>
      ))}
      <li className="pl-[26px]">
        <AddRule
          words={
            group.rules.length === 0
              ? t`add a line…`
              : depth === 0
                ? t`and also…`
                : t`${BETWEEN[group.kind]} also…`
          }
          subjects={subjects}
          nests={nests}
          onAdd={(rule) => onChange({ ...group, rules: [...group.rules, rule] })}
        />
      </li>
    </ol>
  );
}

/** A segment as a sentence whose underlined words open. */
export function Sentence({
  tree,
  steps,
  subjects,
  onChange,
}: {
  tree: Group;
  steps: readonly CountedStep[] | undefined;
  subjects: Subjects;
  onChange: (tree: Group) => void;
}) {
  const { chapter } = useSession();
  return (
    <section
      className="sheet px-6 py-4 font-title text-[19px] leading-[2.05] text-ink2 [&_.word]:text-ink"
      aria-label={t`The sentence`}
    >
      <p>
        <Trans>
          Supporters of <b className="text-ink">{chapter?.name ?? t`all chapters`}</b> who
          {tree.kind === 'none' ? t` fit none of these:` : ''}
        </Trans>
      </p>
      <Rules group={tree} steps={steps} subjects={subjects} depth={0} onChange={onChange} />
    </section>
  );
}
