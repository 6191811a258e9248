import type { ReactNode } from 'react';
import { t } from '@lingui/core/macro';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Navigate, useNavigate } from 'react-router';
import { ProblemError, api } from '../app/api';
import { countryChoices, currencies, localesWith, zonesWith } from '../app/choices';
import { Button, Labelled, Loading, ProblemNote } from '../ui/basics';
import { Card } from './Card';
import { reading } from '../app/reading';

/** What the browser's own language and zone say, to begin with; all of it can be changed later. */
function guesses() {
  const { locale, timeZone } = Intl.DateTimeFormat().resolvedOptions();
  const region = new Intl.Locale(locale).maximize().region ?? 'US';
  const tag = new Intl.Locale(locale).region ? locale : `${new Intl.Locale(locale).language}-${region}`;
  const currency = CURRENCIES[region] ?? 'EUR';
  return { country: region, timeZone, locale: tag, currency };
}
const CURRENCIES: Record<string, string> = {
  US: 'USD',
  CA: 'CAD',
  GB: 'GBP',
  AU: 'AUD',
  NZ: 'NZD',
  CH: 'CHF',
  MX: 'MXN',
};

/** An empty house: the first owner says the word that the start printed, and who they are. */
export default function Begin() {
  const { data, error } = useQuery({ ...reading('beginning'), retry: false });
  if (error) return <ProblemNote error={error} />;
  if (!data) return <Loading what={t`who is here`} />;
  return data.open ? <Beginning /> : <Navigate to="/sign-in" replace />;
}

/** One part of what is typed: an input of it by its name. */
type TypedPart = 'word' | 'organization' | 'name' | 'email' | 'password' | 'chapter' | PlacePart;
type PlacePart = 'locale' | 'timeZone' | 'country' | 'currency';
interface Inputs {
  input: (
    part: TypedPart,
    label: string,
    at: string,
    more?: { hint?: string; type?: string; autoComplete?: string },
  ) => ReactNode;
  select: (part: TypedPart, label: string, options: readonly (readonly [string, string])[]) => ReactNode;
  typed: Record<PlacePart, string>;
}

/** Where the organization is, and how it counts and writes days. */
function OrganizationInputs({ input, select, typed }: Inputs) {
  return (
    <div className="grid grid-cols-2 gap-x-4 gap-y-3">
      {input('organization', t`Organization`, 'organization.name', { hint: t`The name people know` })}
      {input('chapter', t`First chapter`, 'chapter', { hint: t`Where people belong; more can be opened` })}
      {select('country', t`Country`, countryChoices())}
      {select(
        'timeZone',
        t`Time zone`,
        zonesWith(typed.timeZone).map((zone) => [zone, zone.replaceAll('_', ' ')] as const),
      )}
      {select('locale', t`Dates and numbers`, localesWith(typed.locale))}
      {select('currency', t`Currency`, currencies())}
      {input('name', t`Your name`, 'name', { autoComplete: 'name' })}
      {input('email', t`Your email`, 'email', {
        type: 'email',
        autoComplete: 'username',
        hint: t`You sign in with it`,
      })}
      {input('password', t`Password`, 'password', {
        type: 'password',
        autoComplete: 'new-password',
        hint: t`Four words that have nothing to do with each other do well`,
      })}
    </div>
  );
}

function Beginning() {
  const navigate = useNavigate();
  const queryClient = useQueryClient();
  const [typed, setTyped] = useState({
    word: '',
    organization: '',
    chapter: t`Everybody`,
    name: '',
    email: '',
    password: '',
    ...guesses(),
  });
  const begin = useMutation({
    mutationFn: () => {
      const { word, organization, chapter, name, email, password, ...manner } = typed;
      const about = { name: organization, legalName: '', postalAddress: '', ...manner };
      return api.post('beginning', { body: { word, organization: about, chapter, name, email, password } });
    },
    onSuccess: () => {
      queryClient.clear();
      void navigate('/setup', { replace: true });
    },
  });
  const fault = (field: string) =>
    (begin.error instanceof ProblemError ? begin.error.of(field) : undefined) ?? null;
  const input = (
    part: keyof typeof typed,
    label: string,
    at: string,
    more: { hint?: string; type?: string; autoComplete?: string } = {},
  ) => (
    <Labelled label={label} hint={more.hint} fault={fault(at)}>
      <input
        className="input"
        required
        maxLength={200}
        type={more.type ?? 'text'}
        autoComplete={more.autoComplete ?? 'off'}
        value={typed[part]}
        onChange={(event) => setTyped({ ...typed, [part]: event.target.value })}
      />
    </Labelled>
  );
  const select = (
    part: keyof typeof typed,
    label: string,
    options: readonly (readonly [string, string])[],
  ) => (
    <Labelled label={label} fault={fault(`organization.${part}`)}>
      <select
        className="input"
        value={typed[part]}
        onChange={(event) => setTyped({ ...typed, [part]: event.target.value })}
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
    <Card
      title={t`Begin`}
      note={t`Nobody is here yet. You will be the first owner; everything can be changed later, but the currency.`}
      wide
      onSubmit={() => begin.mutate()}
    >
      {!(begin.error instanceof ProblemError && begin.error.problem.faults?.length) && (
        <ProblemNote error={begin.error} />
      )}
      {input('word', t`The word`, 'word', {
        hint: t`It stands in the output of “npm start”, and works once`,
      })}
      <OrganizationInputs input={input} select={select} typed={typed} />
      <Button type="submit" weight="main" disabled={begin.isPending} className="self-start">
        {t`Begin`}
      </Button>
    </Card>
  );
}
