import { t } from '@lingui/core/macro';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { type ReactNode } from 'react';
import type { OrganizationView } from '@goodword/core/contract';
import { LANGUAGES } from '@goodword/core/forms';
import { imprintOf } from '@goodword/core/team';
import { ProblemError, api } from '../app/api';
import { useDrafting } from '../app/drafting';
import { LANGUAGE_WORDS } from '../app/languages';
import { refresh } from '../app/refresh';
import { useSession } from '../app/session';
import { Button, Heading, Labelled, Loading, ProblemNote } from '../ui/basics';
import { useMargin, type Note } from '../ui/margin';
import { Unsaved } from '../ui/Unsaved';
import { countryChoices, currencies, localesWith, MONTHS, zonesWith } from '../app/choices';
import { SetupNav } from './SetupNav';
import { keyOf, reading } from '../app/reading';
import { Logo } from './Logo';
import { Chapters } from './Chapters';

type Own = Omit<OrganizationView, 'logo' | 'version' | 'chapters' | 'missing'>;

function ownOf({
  logo: _logo,
  version: _version,
  chapters: _chapters,
  missing: _missing,
  ...own
}: OrganizationView): Own {
  return own;
}

/** Who the organization is, where it lives, how days and amounts are read, and what leaves in its name. */
export default function Organization() {
  const { data, error } = useQuery(reading('organization'));
  if (error) return <ProblemNote error={error} />;
  if (!data) return <Loading what={t`the organization`} />;
  return <Editor view={data} />;
}

/** “No postal address: it has to stand under…” as a title and what is said of it. */
function split(words: string): { title: string; body: string } {
  const [title = '', body = ''] = words.split(/: (.*)/s);
  return { title, body: body.charAt(0).toUpperCase() + body.slice(1) };
}

function notesOf(view: OrganizationView, own: Own, may: boolean): Note[] {
  const footer = imprintOf(own, own.postalAddress);
  return [
    ...view.missing.map((words): Note => ({ key: words, tone: 'doubt', ...split(words) })),
    {
      key: 'footer',
      tone: 'plain',
      title: t`Under every mail and form`,
      body: t`“${footer}”. A chapter with an address of its own has that one.`,
    },
    ...(may
      ? []
      : [
          {
            key: 'may',
            tone: 'plain' as const,
            title: t`To be read`,
            body: t`An owner who works in all chapters changes it.`,
          },
        ]),
  ];
}

function WhoPart({
  text,
  fault,
  own,
  may,
  set,
  view,
}: {
  text: (
    part: 'name' | 'legalName' | 'fromEmail' | 'bounceDomain' | 'textFrom' | 'givingPage' | 'linkUrl',
    label: string,
    hint?: string,
    most?: number,
  ) => ReactNode;
  fault: (field: string) => string | null;
  own: Own;
  may: boolean;
  set: (part: Partial<Own>) => void;
  view: OrganizationView;
}) {
  return (
    <Part title={t`Who we are`}>
      {text('name', t`Name people know`, t`In messages, forms and answers`, 120)}
      {text('legalName', t`Legal name`, t`In footers and on the privacy page; empty where it is the same`)}
      <Labelled
        label={t`Postal address`}
        hint={t`Stands under every mail and form`}
        fault={fault('postalAddress')}
      >
        <textarea
          className="input"
          rows={2}
          maxLength={300}
          value={own.postalAddress}
          disabled={!may}
          onChange={(event) => set({ postalAddress: event.target.value })}
        />
      </Labelled>
      <Logo src={view.logo} may={may} />
    </Part>
  );
}

function ReadPart({
  choice,
  own,
  fault,
  may,
  set,
}: {
  choice: (
    part: 'country' | 'timeZone' | 'currency' | 'locale',
    label: string,
    options: readonly (readonly [string, string])[],
    hint?: string,
  ) => ReactNode;
  own: Own;
  fault: (field: string) => string | null;
  may: boolean;
  set: (part: Partial<Own>) => void;
}) {
  return (
    <Part title={t`How days and amounts are read`}>
      {choice('country', t`Country`, countryChoices(), t`Numbers without a country are of here`)}
      {choice(
        'timeZone',
        t`Time zone`,
        zonesWith(own.timeZone).map((zone) => [zone, zone.replaceAll('_', ' ')] as const),
        t`Every hour in the program is one of here`,
      )}
      {choice('locale', t`Dates and numbers`, localesWith(own.locale))}
      {choice('currency', t`Currency`, currencies(), t`Can’t change once there are gifts`)}
      <Labelled label={t`The fiscal year begins in`} fault={fault('fiscalMonth')}>
        <select
          className="input"
          value={own.fiscalMonth}
          disabled={!may}
          onChange={(event) => set({ fiscalMonth: Number(event.target.value) })}
        >
          {MONTHS.map((month, i) => (
            <option key={month} value={i + 1}>
              {month}
            </option>
          ))}
        </select>
      </Labelled>
      <fieldset>
        <legend className="font-semibold text-[13px] pb-1">{t`Languages of forms and supporters’ pages`}</legend>
        {LANGUAGES.map((language) => (
          <label key={language} className="inline-flex items-center gap-2 mr-5">
            <input
              type="checkbox"
              className="accent-[#0F766B]"
              checked={own.languages.includes(language)}
              disabled={!may}
              onChange={(event) =>
                set({
                  languages: LANGUAGES.filter((one) =>
                    one === language ? event.target.checked : own.languages.includes(one),
                  ),
                })
              }
            />
            {LANGUAGE_WORDS[language]}
          </label>
        ))}
        {fault('languages') && <p className="text-madder text-[12.5px]">{fault('languages')}</p>}
      </fieldset>
    </Part>
  );
}

function NamePart({
  text,
  own,
  may,
  set,
}: {
  own: Own;
  may: boolean;
  set: (part: Partial<Own>) => void;
  text: (
    part: 'name' | 'legalName' | 'fromEmail' | 'bounceDomain' | 'textFrom' | 'givingPage' | 'linkUrl',
    label: string,
    hint?: string,
    most?: number,
  ) => ReactNode;
}) {
  return (
    <Part title={t`What leaves in our name`}>
      {text('fromEmail', t`Address that mail comes from`, 'hello@…', 254)}
      {text(
        'bounceDomain',
        t`Domain that bounces and answers come back to`,
        t`Its MX record leads to this server`,
      )}
      {text(
        'textFrom',
        t`Number that texts come from`,
        t`With + and the country; empty where no texts are sent`,
        20,
      )}
      {text(
        'givingPage',
        t`Giving page`,
        t`Where one gives, as https://…; messages lead there by {Link: giving page}`,
        300,
      )}
      {text(
        'linkUrl',
        t`Host of short links in texts`,
        t`As https://…; empty for this server’s own address`,
        60,
      )}
      <Labelled
        label={t`What a text segment costs`}
        hint={t`In ${own.currency}, such as 0.0079; empty where it is not known`}
      >
        <input
          className="input"
          type="number"
          min={0}
          max={10}
          step="any"
          disabled={!may}
          value={own.textPrice ?? ''}
          onChange={({ target }) => set({ textPrice: target.value === '' ? null : Number(target.value) })}
        />
      </Labelled>
    </Part>
  );
}

function Editor({ view }: { view: OrganizationView }) {
  const queryClient = useQueryClient();
  const { teammate } = useSession();
  const may = teammate.role === 'owner' && teammate.chapterIds === null;
  const draft = useDrafting<Own>('organization', { value: ownOf(view), version: view.version });
  const own = draft.value;
  const set = (part: Partial<Own>) => draft.set({ ...own, ...part });
  const save = useMutation({
    mutationFn: (sent: Own) => api.put('organization', { body: { ...sent, basedOn: draft.basedOn } }),
    onSuccess: async (_done, sent) => {
      await refresh(queryClient, 'chapters', 'organization');
      draft.saved(sent);
    },
    // Somebody was quicker: what they saved is fetched, and both are shown.
    onError: () => queryClient.invalidateQueries({ queryKey: keyOf('organization') }),
  });
  useMargin(notesOf(view, own, may));
  const problem = save.error instanceof ProblemError ? save.error : null;
  const fault = (field: string) => problem?.of(field) ?? null;
  const text = (
    part: 'name' | 'legalName' | 'fromEmail' | 'bounceDomain' | 'textFrom' | 'givingPage' | 'linkUrl',
    label: string,
    hint?: string,
    most = 200,
  ) => (
    <Labelled label={label} hint={hint} fault={fault(part)}>
      <input
        className="input"
        value={own[part]}
        maxLength={most}
        disabled={!may}
        onChange={(event) => set({ [part]: event.target.value })}
      />
    </Labelled>
  );
  const choice = (
    part: 'country' | 'timeZone' | 'currency' | 'locale',
    label: string,
    options: readonly (readonly [string, string])[],
    hint?: string,
  ) => (
    <Labelled label={label} hint={hint} fault={fault(part)}>
      <select
        className="input"
        value={own[part]}
        disabled={!may}
        onChange={(event) => set({ [part]: event.target.value })}
      >
        {options.map(([value, words]) => (
          <option key={value} value={value}>
            {words}
          </option>
        ))}
      </select>
    </Labelled>
  );
  return (
    <>
      <Heading title={t`Setup`} page={t`Organization`} note={t`The organization`}>
        {draft.isChanged && draft.theirs === null && <Button onClick={draft.discard}>{t`Put back`}</Button>}
        {may && (
          <Button
            weight="main"
            disabled={!draft.isChanged || draft.theirs !== null || save.isPending}
            onClick={() => save.mutate(own)}
          >
            {t`Save`}
          </Button>
        )}
      </Heading>
      <SetupNav />
      <Unsaved draft={draft} what={t`the organization`} />
      {!problem?.problem.newer && <ProblemNote error={save.error} />}
      <div
        className="sheet p-5 grow min-h-0 overflow-y-auto flex flex-col gap-6"
        tabIndex={0}
        role="region"
        aria-label={t`The organization`}
      >
        <WhoPart text={text} fault={fault} own={own} may={may} set={set} view={view} />
        <ReadPart choice={choice} own={own} fault={fault} may={may} set={set} />
        <NamePart text={text} own={own} may={may} set={set} />
        <Chapters view={view} may={may} />
      </div>
    </>
  );
}

function Part({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section className="flex flex-col gap-3 border-b border-hair pb-6 last:border-0">
      <h2 className="subtitle">{title}</h2>
      <div className="grid grid-cols-2 gap-x-5 gap-y-3">{children}</div>
    </section>
  );
}
