import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import type { ContactPointView, RecordView } from '@goodword/core/contract';
import type { NewAddress, NewPostal } from '@goodword/core/common';
import { api } from '../../app/api';
import { useTyped } from '../../app/drafting';
import { refresh } from '../../app/refresh';
import { useSession } from '../../app/session';
import { Button, Labelled } from '../../ui/basics';
import { countryChoices } from '../../app/choices';
import { useRegions } from './regions';

/** What somebody types, before it is known whether it is an email or a mobile. */
type Kind = 'typed' | 'landline' | 'post';
interface Typed {
  kind: Kind;
  text: string;
  post: NewPostal;
}

const POST: NewPostal = { street: '', city: '', region: '', postcode: '', country: '' };

function bodyOf({ kind, text, post }: Typed): NewAddress {
  if (kind === 'post') return { kind, post };
  if (kind === 'landline') return { kind: 'mobile', text, line: 'landline' };
  return text.includes('@') ? { kind: 'email', text } : { kind: 'mobile', text };
}

function begun(point: ContactPointView | undefined, country: string, start: string): Typed {
  if (!point) return { kind: 'typed', text: start, post: { ...POST, country } };
  if (point.kind === 'post')
    return { kind: 'post', text: '', post: { ...POST, ...(point.parts ?? { street: point.shown }) } };
  return { kind: point.line === 'landline' ? 'landline' : 'typed', text: point.shown, post: POST };
}

function PostalInputs({ value, onChange }: { value: NewPostal; onChange: (value: NewPostal) => void }) {
  const regions = useRegions(value.country);
  const codes = regions.map(({ code }) => code.slice(3));
  const set = (part: Partial<NewPostal>) => onChange({ ...value, ...part });
  const input = (part: keyof NewPostal, label: string, autoComplete: string, autoFocus = false) => (
    <Labelled label={label}>
      <input
        className="input"
        autoFocus={autoFocus}
        autoComplete={autoComplete}
        value={value[part]}
        onChange={(event) => set({ [part]: event.target.value })}
      />
    </Labelled>
  );
  return (
    <div className="flex flex-col gap-2">
      {input('street', t`Street`, 'off', true)}
      <div className="grid grid-cols-2 gap-2">
        {input('city', t`Town`, 'off')}
        {input('postcode', t`Postcode`, 'off')}
      </div>
      {regions.length > 0 ? (
        <Labelled label={t`Region`}>
          <select
            className="input"
            value={value.region}
            onChange={(event) => set({ region: event.target.value })}
          >
            <option value="">{t`None`}</option>
            {value.region !== '' && !codes.includes(value.region) && (
              <option value={value.region}>{value.region}</option>
            )}
            {regions.map(({ code, name }) => (
              <option key={code} value={code.slice(3)}>
                {name}
              </option>
            ))}
          </select>
        </Labelled>
      ) : (
        input('region', t`Region`, 'off')
      )}
      <Labelled label={t`Country`}>
        <select
          className="input"
          value={value.country}
          onChange={(event) => set({ country: event.target.value, region: '' })}
        >
          <option value="">{t`Not said`}</option>
          {countryChoices().map(([code, name]) => (
            <option key={code} value={code}>
              {name}
            </option>
          ))}
        </select>
      </Labelled>
    </div>
  );
}

interface AddressFormProps {
  record: RecordView;
  point?: ContactPointView;
  /** What a new one begins with. */
  start?: string;
  onDone: () => void;
}

/** One more address, or another in the place of one; what is typed is kept until it is saved. */
export function AddressForm({ record, point, start = '', onDone }: AddressFormProps) {
  const queryClient = useQueryClient();
  const { organization } = useSession();
  const draft = useTyped(
    `address:${record.id}${point ? `:${point.id}` : ''}`,
    begun(point, organization.country, start),
  );
  const { value } = draft;
  const save = useMutation({
    mutationFn: (typed: Typed) =>
      point
        ? api.put('supporters/{id}/contact-points/{pointId}', {
            id: record.id,
            pointId: point.id,
            body: { ...bodyOf(typed), was: point.shown },
          })
        : api.post('supporters/{id}/contact-points', { id: record.id, body: bodyOf(typed) }),
    onSuccess: (_none, typed) => (draft.saved(typed), void refresh(queryClient, 'supporters'), onDone()),
  });
  const isEmpty =
    value.kind === 'post'
      ? value.post.street.trim() === '' && value.post.city.trim() === ''
      : value.text.trim() === '';
  return (
    <form
      className="py-2 flex flex-col gap-2"
      onSubmit={(event) => (event.preventDefault(), save.mutate(value))}
      onKeyDown={(event) => event.key === 'Escape' && onDone()}
    >
      {!point && (
        <select
          className="input"
          aria-label={t`What kind of address`}
          value={value.kind}
          onChange={(event) => draft.set({ ...value, kind: event.target.value as Kind })}
        >
          <option value="typed">{t`Email or mobile`}</option>
          <option value="landline">{t`Landline`}</option>
          <option value="post">{t`Postal address`}</option>
        </select>
      )}
      {value.kind === 'post' ? (
        <PostalInputs value={value.post} onChange={(post) => draft.set({ ...value, post })} />
      ) : (
        <input
          className="input"
          autoFocus
          aria-label={
            point
              ? t`In the place of ${point.shown}`
              : value.kind === 'landline'
                ? t`Another landline`
                : t`Another email or mobile`
          }
          placeholder={value.kind === 'landline' ? t`A number to be called` : t`Email or mobile`}
          value={value.text}
          onChange={(event) => draft.set({ ...value, text: event.target.value })}
        />
      )}
      {point && point.kind !== 'post' && (
        <p className="text-ink2 text-[12.5px]">
          <Trans>
            What they agreed to at {point.shown} stays with it. Record what they say about the new one.
          </Trans>
        </p>
      )}
      <div className="flex gap-3 items-center">
        <Button type="submit" disabled={isEmpty || save.isPending}>
          {point ? t`Save` : t`Add`}
        </Button>
        <button type="button" className="link text-ink2" onClick={() => (draft.discard(), onDone())}>
          {t`Leave it`}
        </button>
      </div>
      {save.error && (
        <p role="alert" className="text-madder">
          {save.error.message}
        </p>
      )}
    </form>
  );
}
