import type { UseMutationResult } from '@tanstack/react-query';
import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { ChevronRight, Search } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { lazy, Suspense, useEffect, useState } from 'react';
import { ErrorBoundary } from 'react-error-boundary';
import { Navigate, NavLink, Outlet, useLocation, useNavigate } from 'react-router';
import type { TodayView } from '@goodword/core/contract';
import { Button, Loading } from '../ui/basics';
import { Margin } from '../ui/Margin';
import { sentenceOf, useUntold } from '../ui/told';
import { api } from './api';
import { forgetAll, saveAll } from './keeping';
import { tryAgain } from './loading';
import { Lost } from './Lost';
import { sessionQuery, useSession } from './session';
import { STATIONS } from './stations';
import { refreshAll } from './refresh';
import { reading } from './reading';

const Finder = lazy(() => import('./Finder'));
const Keys = lazy(() => import('./Keys'));

function waitsAt(today: TodayView | undefined): Record<string, number> {
  if (!today) return {};
  return {
    '/gather': today.batches.length,
    '/send': today.messages.length,
    '/hear-back': today.replies + today.unsure + today.stops.length,
  };
}

function Mark() {
  return (
    <svg width="12" height="24" viewBox="0 0 12 24" aria-hidden="true">
      <path d="M8 1 L2 22 H10" fill="none" stroke="#E9B9C2" strokeWidth="2.6" />
    </svg>
  );
}

function Stations() {
  const { data } = useQuery({ ...reading('today'), refetchInterval: 15_000 });
  const waits = waitsAt(data);
  return (
    <nav
      aria-label={t`Stations`}
      className="flex h-[54px] items-stretch max-[900px]:h-auto max-[900px]:flex-wrap"
    >
      {STATIONS.map((station, i) => (
        <div key={station.path} className="flex items-center">
          {i > 0 && <ChevronRight size={13} className="text-[#7f9298]" aria-hidden="true" />}
          <NavLink
            to={station.path}
            className={({ isActive }) =>
              `h-full max-[900px]:h-[44px] flex items-center gap-2 px-[14px] font-semibold border-b-[3px] ${isActive ? 'bg-[#2a3b42] border-blush text-white' : 'border-transparent text-[#dfe7e6] hover:text-white'}`
            }
          >
            {station.name}
            {(waits[station.path] ?? 0) > 0 && (
              <span
                className="rounded-full bg-[#a9bab8] text-ink text-[12px] leading-[18px] px-[7px]"
                aria-label={t`${waits[station.path]!} waiting`}
              >
                {waits[station.path]}
              </span>
            )}
          </NavLink>
        </div>
      ))}
    </nav>
  );
}

const ITEM =
  'block px-3 py-2 rounded-[3px] outline-none data-[highlighted]:bg-bench aria-[current=true]:font-semibold cursor-pointer';

/** What the menu behind one's name offers: chapters, pages of one's own, the way out. */
function AccountMenu({
  all,
  choose,
  leave,
}: {
  all: boolean;
  choose: UseMutationResult<void, Error, number | null, unknown>;
  leave: () => Promise<void>;
}) {
  const session = useSession();
  return (
    <DropdownMenu.Portal>
      <DropdownMenu.Content align="end" sideOffset={8} className="sheet p-1 min-w-[230px] text-ink z-20">
        <DropdownMenu.Label className="px-3 py-2 text-ink2">
          {session.teammate.name}, {session.teammate.role}
        </DropdownMenu.Label>
        {all && (
          <DropdownMenu.Item
            className={ITEM}
            aria-current={session.chapter === null}
            onSelect={() => choose.mutate(null)}
          >
            {t`Work in all chapters`}
          </DropdownMenu.Item>
        )}
        {session.chapters.map((chapter) => (
          <DropdownMenu.Item
            key={chapter.id}
            className={ITEM}
            aria-current={session.chapter?.id === chapter.id}
            onSelect={() => choose.mutate(chapter.id)}
          >
            <Trans>Work in {chapter.name}</Trans>
          </DropdownMenu.Item>
        ))}
        <DropdownMenu.Separator className="h-px bg-hair my-1" />
        <DropdownMenu.Item className={ITEM} asChild>
          <NavLink to="/house">{t`House rules`}</NavLink>
        </DropdownMenu.Item>
        <DropdownMenu.Item className={ITEM} asChild>
          <NavLink to="/setup">{t`Setup: the organization`}</NavLink>
        </DropdownMenu.Item>
        <DropdownMenu.Item className={ITEM} asChild>
          <NavLink to="/setup/you">{t`Your profile and password`}</NavLink>
        </DropdownMenu.Item>
        <DropdownMenu.Item className={ITEM} asChild>
          <NavLink to="/help">{t`Help: the guides`}</NavLink>
        </DropdownMenu.Item>
        {session.standins.mailroom && (
          <DropdownMenu.Item className={ITEM} asChild>
            <a href={session.standins.mailroom} target="_blank" rel="noreferrer">
              {t`Mailroom: what was mailed`}
            </a>
          </DropdownMenu.Item>
        )}
        {session.standins.handsets && (
          <DropdownMenu.Item className={ITEM} asChild>
            <a href={session.standins.handsets} target="_blank" rel="noreferrer">
              {t`Handsets: what was texted`}
            </a>
          </DropdownMenu.Item>
        )}
        <DropdownMenu.Item className={ITEM} asChild>
          <a href="/api/docs" target="_blank" rel="noreferrer">
            {t`The API, described`}
          </a>
        </DropdownMenu.Item>
        <DropdownMenu.Item className={ITEM} onSelect={() => void leave()}>
          {t`Sign out`}
        </DropdownMenu.Item>
      </DropdownMenu.Content>
    </DropdownMenu.Portal>
  );
}

function Account() {
  const session = useSession();
  const queryClient = useQueryClient();
  const navigate = useNavigate();
  const choose = useMutation({
    mutationFn: (chapterId: number | null) => api.put('session/chapter', { body: { chapterId } }),
    onSuccess: () => refreshAll(queryClient),
  });
  const leave = async () => {
    await saveAll();
    await api.delete('session');
    forgetAll();
    queryClient.clear();
    void navigate('/sign-in');
  };
  const initials = session.teammate.name
    .split(' ')
    .map((word) => word[0])
    .join('')
    .slice(0, 2);
  const all = session.chapters.length > 1 && session.teammate.chapterIds === null;
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger className="flex items-center gap-2 font-medium text-[#e8eeec]">
        {session.chapter?.name ?? t`All chapters`}
        <span
          className="rounded-full bg-blush text-ink text-[11px] font-bold w-[30px] h-[30px] grid place-items-center"
          aria-label={session.teammate.name}
        >
          {initials}
        </span>
      </DropdownMenu.Trigger>
      <AccountMenu all={all} choose={choose} leave={leave} />
    </DropdownMenu.Root>
  );
}

function typing(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement &&
    (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName))
  );
}

/** Keys that work everywhere. */
function useKeys(openFinder: () => void, openKeys: () => void): void {
  const navigate = useNavigate();
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const station = event.altKey ? STATIONS[Number(event.key) - 1] : undefined;
      if (station) void navigate(station.path);
      else if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'k') openFinder();
      else if (event.key === '?' && !typing(event.target)) openKeys();
      else return;
      event.preventDefault();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [navigate, openFinder, openKeys]);
}

function Bar({ onFind }: { onFind: () => void }) {
  return (
    <header className="h-[54px] bg-ink text-white flex items-center shrink-0 pr-5 max-[900px]:h-auto max-[900px]:flex-wrap">
      <NavLink
        to="/"
        end
        className="flex items-center gap-2 px-5 font-title font-bold text-[18px] h-full max-[900px]:h-[44px]"
        aria-label={t`Good Word, Today`}
      >
        <Mark />
        {t`Good Word`}
      </NavLink>
      <Stations />
      <div className="grow" />
      <button
        onClick={onFind}
        className="flex items-center gap-2 bg-[#2a3b42] text-[#d5dfdd] rounded-paper px-3 h-[34px] min-[1100px]:w-[250px] mr-5"
        aria-label={t`Find a supporter or message`}
      >
        <Search size={14} aria-hidden="true" />
        <span className="hidden min-[1100px]:inline grow text-left truncate">{t`Find a supporter or message`}</span>
        <kbd className="hidden min-[1100px]:inline font-mono text-[11px] whitespace-nowrap border border-[#5f7379] rounded-[3px] px-1">{t`Ctrl K`}</kbd>
      </button>
      <NavLink
        to="/house"
        className={({ isActive }) =>
          `hidden min-[1200px]:block mr-5 font-medium whitespace-nowrap ${isActive ? 'text-white underline underline-offset-4' : 'text-[#dfe7e6] hover:text-white'}`
        }
      >
        {t`House rules`}
      </NavLink>
      <Account />
    </header>
  );
}

/** Above a view of which something could not be read, where the view does not say so itself. */
function Untold() {
  const { errors, again } = useUntold();
  if (errors.length === 0) return null;
  return (
    <div
      role="alert"
      className="border-l-[3px] border-madder pl-3 py-1 mb-3 flex items-center gap-4 shrink-0"
    >
      <div className="grow">
        <p className="font-semibold">{t`Something on this page could not be read`}</p>
        {errors.map((error) => (
          <p key={sentenceOf(error)} className="text-ink2">
            {sentenceOf(error)}
          </p>
        ))}
      </div>
      <Button onClick={again}>{t`Try again`}</Button>
    </div>
  );
}

/** The bench that every view lies on: stations above, the view, the Margin at its right. */
export function Frame() {
  const { data, error, isPending } = useQuery(sessionQuery);
  const location = useLocation();
  const [finding, setFinding] = useState(false);
  // Loaded before it is asked for, so that no letter typed right after Ctrl+K is lost.
  useEffect(() => void import('./Finder'), []);
  const [showingKeys, setShowingKeys] = useState(false);
  useKeys(
    () => setFinding(true),
    () => setShowingKeys(true),
  );
  if (isPending) return <Loading what={t`your session`} />;
  if (error || !data)
    return <Navigate to={`/sign-in?to=${encodeURIComponent(location.pathname + location.search)}`} replace />;
  return (
    <div className="h-full flex flex-col">
      <Bar onFind={() => setFinding(true)} />
      <div className="grow min-h-0 flex gap-5 px-5 max-[900px]:flex-col max-[900px]:overflow-y-auto">
        <main
          className="grow min-w-0 min-h-0 flex flex-col pt-[18px] pb-4 overflow-y-auto max-[900px]:grow-0 max-[900px]:shrink-0 max-[900px]:min-h-[640px] max-[900px]:overflow-x-auto"
          tabIndex={-1}
        >
          <Untold />
          <ErrorBoundary resetKeys={[location.pathname]} onReset={tryAgain} FallbackComponent={Lost}>
            <Suspense fallback={<Loading what={t`the page`} />}>
              <Outlet />
            </Suspense>
          </ErrorBoundary>
        </main>
        <Margin />
      </div>
      <Suspense fallback={null}>
        {finding && <Finder onClose={() => setFinding(false)} />}
        {showingKeys && <Keys onClose={() => setShowingKeys(false)} />}
      </Suspense>
    </div>
  );
}
