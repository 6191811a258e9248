import { plural, t } from '@lingui/core/macro';
import { Plural, Trans } from '@lingui/react/macro';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import type { OrganizationView, TeammateView, WaitingFor } from '@goodword/core/contract';
import { ROLES, type Role } from '@goodword/core/team';
import { api, ProblemError } from '../app/api';
import { useFormat } from '../app/format';
import { useTyped } from '../app/drafting';
import { refresh } from '../app/refresh';
import { useSession } from '../app/session';
import { Button, Heading, Labelled, Loading, ProblemNote } from '../ui/basics';
import { Drawer } from '../ui/dialogs';
import { useMargin } from '../ui/margin';
import { SetupNav } from './SetupNav';
import { reading } from '../app/reading';

const ROLE_WORDS: Record<Role, string> = {
  viewer: t`Viewer: reads records and results`,
  writer: t`Writer: writes, and sends to a test group`,
  organizer: t`Organizer: gathers, sorts, writes and sends`,
  owner: t`Owner: sets rules, team and organization`,
};

type Chapters = OrganizationView['chapters'];

/** The team: invited by mail, changed, and taken out with what waits for them handed on. */
export default function Team() {
  const team = useQuery({ ...reading('team'), refetchInterval: 10_000 });
  const organization = useQuery(reading('organization'));
  const [open, setOpen] = useState<TeammateView | 'new' | null>(null);
  useMargin([
    {
      key: 'roles',
      tone: 'plain',
      title: t`What each may`,
      body: t`${ROLES.map((role) => ROLE_WORDS[role]).join('. ')}. Each may do what those before it may.`,
    },
    {
      key: 'chapter',
      tone: 'plain',
      title: t`Bound to chapters`,
      body: t`Whoever is bound to some works in one of them at a time, sees its people alone, and changes nothing that belongs to all.`,
    },
  ]);
  if (team.error) return <ProblemNote error={team.error} />;
  if (!team.data || !organization.data) return <Loading what={t`the team`} />;
  const { chapters } = organization.data;
  return (
    <>
      <Heading title={t`Setup`} page={t`Team`} note={t`The team`}>
        <Button weight="main" onClick={() => setOpen('new')}>
          {t`Invite somebody`}
        </Button>
      </Heading>
      <SetupNav />
      <div className="sheet overflow-y-auto" tabIndex={0} role="region" aria-label={t`The team`}>
        <table className="w-full">
          <thead>
            <tr className="text-left border-b border-hair text-ink2 text-[13px]">
              <th className="p-3">{t`Name`}</th>
              <th>{t`Role`}</th>
              <th>{t`Works in`}</th>
              <th>{t`Where they stand`}</th>
              <th />
            </tr>
          </thead>
          <tbody>
            {team.data.map((mate) => (
              <Line key={mate.id} mate={mate} chapters={chapters} onOpen={() => setOpen(mate)} />
            ))}
          </tbody>
        </table>
      </div>
      <Drawer
        open={open !== null}
        onClose={() => setOpen(null)}
        title={open === 'new' || open === null ? t`Invite somebody` : open.name}
        note={
          open === 'new' || open === null ? t`They get a mail with a link, good for seven days` : open.email
        }
      >
        {open === 'new' && <Invitation chapters={chapters} onDone={() => setOpen(null)} />}
        {open !== null && open !== 'new' && (
          <Mate
            mate={team.data.find(({ id }) => id === open.id) ?? open}
            team={team.data}
            chapters={chapters}
            onDone={() => setOpen(null)}
          />
        )}
      </Drawer>
    </>
  );
}

function Line({ mate, chapters, onOpen }: { mate: TeammateView; chapters: Chapters; onOpen: () => void }) {
  return (
    <tr className={`border-b border-hair last:border-0 ${mate.state === 'gone' ? 'text-ink2' : ''}`}>
      <td className="p-3">
        <span className="font-semibold block">{mate.name}</span>
        <span className="text-ink2 text-[13px]">{mate.email}</span>
      </td>
      <td className="capitalize">{mate.role}</td>
      <td>{placeWords(mate.chapterIds, chapters)}</td>
      <td>
        <Standing mate={mate} />
      </td>
      <td className="pr-3 text-right">
        {mate.state !== 'gone' && <Button onClick={onOpen}>{t`Change`}</Button>}
      </td>
    </tr>
  );
}

function Standing({ mate }: { mate: TeammateView }) {
  const format = useFormat();
  if (mate.state === 'gone') return <>{t`Gone`}</>;
  if (mate.state === 'here')
    return <>{mate.signedInAt ? t`Here, last signed in ${format.moment(mate.signedInAt)}` : t`Here`}</>;
  const { invitation } = mate;
  if (!invitation || invitation.state === 'expired')
    return <span className="text-madder">{t`The invitation is too old; send it again`}</span>;
  if (invitation.state === 'failed')
    return (
      <span className="text-madder">
        <Trans>The invitation did not arrive: {invitation.detail}</Trans>
      </span>
    );
  if (invitation.state === 'waiting' && invitation.detail)
    return <Trans>The invitation waits: {invitation.detail}</Trans>;
  return (
    <>
      {invitation.state === 'sent'
        ? t`Invited, until ${format.day(invitation.expiresAt)}`
        : t`The invitation is on its way`}
    </>
  );
}

function useActs(onDone: () => void) {
  const queryClient = useQueryClient();
  return useMutation({
    mutationFn: (act: () => Promise<unknown>) => act(),
    onSuccess: async () => {
      await refresh(queryClient, 'team');
      onDone();
    },
    // Somebody was quicker: how they stand now is fetched.
    onError: () => refresh(queryClient, 'team'),
  });
}

interface Place {
  role: Role;
  /** Null for all. */
  chapterIds: number[] | null;
}

function placeWords(ids: readonly number[] | null, chapters: Chapters): string {
  if (ids === null) return t`All chapters`;
  return chapters.flatMap(({ id, name }) => (ids.includes(id) ? [name] : [])).join(', ');
}

const withOrWithout = (ids: readonly number[], id: number, has: boolean) =>
  has ? [...ids, id].sort((a, b) => a - b) : ids.filter((one) => one !== id);

const placeOf = ({ role, chapterIds }: TeammateView): Place => ({ role, chapterIds });
const samePlace = (a: Place, b: Place) => a.role === b.role && String(a.chapterIds) === String(b.chapterIds);
const isNowhere = ({ chapterIds }: Place) => chapterIds?.length === 0;

function RoleAndPlace({
  role,
  chapterIds,
  chapters,
  onChange,
}: Place & { chapters: Chapters; onChange: (next: Place) => void }) {
  return (
    <>
      <Labelled label={t`Role`}>
        <select
          className="input"
          value={role}
          onChange={(event) => onChange({ role: event.target.value as Role, chapterIds })}
        >
          {ROLES.map((one) => (
            <option key={one} value={one}>
              {ROLE_WORDS[one]}
            </option>
          ))}
        </select>
      </Labelled>
      <fieldset className="flex flex-col gap-1.5">
        <legend className="font-semibold text-[13px] mb-1.5">{t`Works in`}</legend>
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            className="accent-[#0F766B]"
            checked={chapterIds === null}
            onChange={(event) => onChange({ role, chapterIds: event.target.checked ? null : [] })}
          />
          {t`All chapters, also those that are opened later`}
        </label>
        {chapters.map((chapter) => (
          <label key={chapter.id} className="flex items-center gap-2 pl-6">
            <input
              type="checkbox"
              className="accent-[#0F766B]"
              checked={chapterIds?.includes(chapter.id) ?? true}
              disabled={chapterIds === null}
              onChange={(event) =>
                onChange({
                  role,
                  chapterIds: withOrWithout(chapterIds ?? [], chapter.id, event.target.checked),
                })
              }
            />
            {chapter.name}
          </label>
        ))}
        {chapterIds?.length === 0 && <p className="text-ink2 text-[13px]">{t`Choose at least one.`}</p>}
      </fieldset>
    </>
  );
}

function Invitation({ chapters, onDone }: { chapters: Chapters; onDone: () => void }) {
  const draft = useTyped<Place & { name: string; email: string }>('invitation', {
    name: '',
    email: '',
    role: 'organizer',
    chapterIds: null,
  });
  const { name, email, ...where } = draft.value;
  const set = (part: Partial<typeof draft.value>) => draft.set({ ...draft.value, ...part });
  const act = useActs(() => (draft.discard(), onDone()));
  const fault = (field: string) =>
    (act.error instanceof ProblemError ? act.error.of(field) : undefined) ?? null;
  const submit = () => act.mutate(() => api.post('team', { body: { name, email, ...where } }));
  return (
    <form className="flex flex-col gap-3" onSubmit={(event) => (event.preventDefault(), submit())}>
      <Labelled label={t`Name`} fault={fault('name')}>
        <input
          className="input"
          autoFocus
          maxLength={120}
          value={name}
          onChange={(event) => set({ name: event.target.value })}
        />
      </Labelled>
      <Labelled label={t`Email`} hint={t`They sign in with it`} fault={fault('email')}>
        <input
          className="input"
          type="email"
          maxLength={254}
          value={email}
          onChange={(event) => set({ email: event.target.value })}
        />
      </Labelled>
      <RoleAndPlace {...where} chapters={chapters} onChange={set} />
      {act.error !== null && !(act.error instanceof ProblemError && act.error.problem.faults?.length) && (
        <ProblemNote error={act.error} />
      )}
      <Button
        weight="main"
        type="submit"
        className="self-start"
        disabled={name.trim() === '' || email.trim() === '' || isNowhere(where) || act.isPending}
      >
        {t`Send the invitation`}
      </Button>
    </form>
  );
}

function Mate({
  mate,
  team,
  chapters,
  onDone,
}: {
  mate: TeammateView;
  team: TeammateView[];
  chapters: Chapters;
  onDone: () => void;
}) {
  const { teammate: me } = useSession();
  const [where, setWhere] = useState(() => placeOf(mate));
  const act = useActs(onDone);
  // Where they stood when this was begun, or as one was told since: nothing unseen is written over.
  const [seen, setSeen] = useState(() => placeOf(mate));
  useEffect(() => {
    if (act.error) setSeen(placeOf(mate));
  }, [act.error, mate]);
  return (
    <div className="flex flex-col gap-5 overflow-y-auto">
      <section className="flex flex-col gap-3">
        <RoleAndPlace {...where} chapters={chapters} onChange={setWhere} />
        <Button
          weight="main"
          className="self-start"
          disabled={samePlace(where, placeOf(mate)) || isNowhere(where) || act.isPending}
          onClick={() =>
            act.mutate(() => api.put('team/{id}', { id: mate.id, body: { ...where, was: seen } }))
          }
        >
          {t`Save`}
        </Button>
      </section>
      <ProblemNote error={act.error} />
      <section className="flex flex-col gap-2 items-start border-t border-hair pt-4">
        {mate.state === 'invited' ? (
          <Button
            onClick={() => act.mutate(() => api.post('team/{id}/invitation', { id: mate.id }))}
          >{t`Send the invitation again`}</Button>
        ) : (
          <Button
            disabled={mate.sessions === 0}
            onClick={() => act.mutate(() => api.delete('team/{id}/sessions', { id: mate.id }))}
          >
            <Trans>
              End their {mate.sessions} <Plural value={mate.sessions} one="session" other="sessions" />
            </Trans>
          </Button>
        )}
      </section>
      {mate.id !== me.id && <TakeOut mate={mate} team={team} act={act} />}
    </div>
  );
}

function TakeOut({
  mate,
  team,
  act,
}: {
  mate: TeammateView;
  team: TeammateView[];
  act: ReturnType<typeof useActs>;
}) {
  const others = team.filter((one) => one.id !== mate.id && one.state === 'here');
  const [handTo, setHandTo] = useState<number | null>(null);
  const { data } = useQuery(reading('team/{id}/waiting', { id: mate.id }));
  const waits = data ? wordsOf(data) : [];
  return (
    <section className="flex flex-col gap-3 border-t border-hair pt-4">
      <h3 className="font-semibold">
        <Trans>Remove {mate.name} from the team</Trans>
      </h3>
      <p className="text-ink2">
        <Trans>
          They are signed out at once and can’t come back but by another invitation. What they did stays under
          their name.{' '}
          {data &&
            (waits.length === 0
              ? t`Nothing waits for them.`
              : t`What waits for them goes to somebody else: ${waits.join(', ')}.`)}
        </Trans>
      </p>
      <Labelled label={t`Who goes on with it`}>
        <select
          className="input"
          value={handTo ?? ''}
          onChange={(event) => setHandTo(Number(event.target.value) || null)}
        >
          <option value="">{t`Choose`}</option>
          {others.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </select>
      </Labelled>
      <Button
        weight="grave"
        className="self-start"
        disabled={handTo === null || act.isPending}
        onClick={() =>
          act.mutate(() => api.post('team/{id}/take-out', { id: mate.id, body: { handTo: handTo! } }))
        }
      >
        <Trans>Remove {mate.name}</Trans>
      </Button>
    </section>
  );
}

function wordsOf({ messages, batches, callLists, replies }: WaitingFor): string[] {
  return [
    messages > 0 && plural(messages, { one: '# message', other: '# messages' }),
    batches > 0 && plural(batches, { one: '# half-done batch', other: '# half-done batches' }),
    callLists > 0 && plural(callLists, { one: '# call list', other: '# call lists' }),
    replies > 0 && plural(replies, { one: '# reply', other: '# replies' }),
  ].filter((words) => words !== false);
}
