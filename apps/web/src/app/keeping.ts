import { t } from '@lingui/core/macro';
import { useEffect, useMemo, useSyncExternalStore } from 'react';
import { ProblemError } from './api';
import { useSession } from './session';
import { isSame, readStored, writeStored } from './stored';

/** Milliseconds after the last key until it is saved. */
const CALM_MS = 600;
const AGAIN_MS = [1000, 2000, 5000, 10_000, 30_000];

/**
 * Where what was typed stands: the server has it; it is on its way; the server can't be reached and it is
 * tried again; the server has something newer of somebody else; the server refused it, with its reason.
 */
export type SaveState = 'saved' | 'saving' | 'waiting' | 'newer' | 'refused';

export interface KeptDraft<T> {
  value: T;
  saveState: SaveState;
  problem: unknown;
  /** What somebody else saved meanwhile; null where nothing is known of such. */
  theirs: { value: T; version: number } | null;
}

export interface Saving<T> {
  /** Saves, and answers the version that this made. `leaving` is true when the page is being closed. */
  save(value: T, basedOn: number, leaving: boolean): Promise<number>;
  load(): Promise<{ value: T; version: number }>;
  /** What is told to the rest of the page when the server has it. */
  onSaved?(value: T, version: number): void;
}

interface Stored<T> {
  value: T;
  basedOn: number;
}

const PREFIX = 'gw-kept:';

/**
 * One thing that is being typed. It is kept in the browser from the first key until the server has it, saved
 * one save after the other, tried again while the server is away, and never written over something newer. It
 * outlives the view: what was typed before a click elsewhere is still on its way, and is found again on
 * coming back.
 */
export class Keeper<T> {
  private state: KeptDraft<T>;
  private readonly listeners = new Set<() => void>();
  private timer: ReturnType<typeof setTimeout> | undefined;
  private running: Promise<void> | null = null;
  private failures = 0;
  private ended = false;

  constructor(
    private readonly name: string,
    initial: { value: T; version: number },
    public saving: Saving<T>,
  ) {
    this.version = initial.version;
    this.state = { value: initial.value, saveState: 'saved', problem: null, theirs: null };
    const stored = readStored<Stored<T>>(PREFIX + name);
    if (!stored || isSame(stored.value, initial.value)) writeStored(PREFIX + name, null);
    else if (stored.basedOn === initial.version) this.set(stored.value);
    else this.state = { value: stored.value, saveState: 'newer', problem: null, theirs: initial };
  }

  version: number;

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => void this.listeners.delete(listener);
  };

  readonly snapshot = (): KeptDraft<T> => this.state;

  set(value: T): void {
    if (isSame(value, this.state.value)) return;
    const { saveState } = this.state;
    this.change({ value, saveState: saveState === 'newer' ? 'newer' : 'saving' });
    writeStored(PREFIX + this.name, { value, basedOn: this.version });
    this.soon(CALM_MS);
  }

  /**
   * Saves at once what is not saved yet; resolves when the server has it, and throws where it did not take
   * it.
   */
  async flush(leaving = false): Promise<void> {
    clearTimeout(this.timer);
    while (this.running) await this.running;
    if (this.isOwed()) await this.run(leaving);
    const { saveState, problem } = this.state;
    if (saveState !== 'saved') throw problem ?? new Error('It is not saved yet.');
  }

  /** What was typed here stays, in the place of what somebody else saved. */
  keepMine(): void {
    if (!this.state.theirs) return;
    this.version = this.state.theirs.version;
    this.change({ saveState: 'saving', theirs: null, problem: null });
    writeStored(PREFIX + this.name, { value: this.state.value, basedOn: this.version });
    void this.flush().catch(() => undefined);
  }

  takeTheirs(): void {
    if (!this.state.theirs) return;
    const { value, version } = this.state.theirs;
    this.version = version;
    writeStored(PREFIX + this.name, null);
    this.change({ value, saveState: 'saved', theirs: null, problem: null });
    this.saving.onSaved?.(value, version);
  }

  /** Nothing is sent any more; what is not saved stays kept in the browser. */
  end(): void {
    clearTimeout(this.timer);
    this.ended = true;
  }

  private isOwed(): boolean {
    return !this.ended && this.state.saveState !== 'newer' && this.state.saveState !== 'saved';
  }

  private soon(ms: number): void {
    clearTimeout(this.timer);
    if (this.ended) return;
    this.timer = setTimeout(() => void this.flush().catch(() => undefined), ms);
  }

  private run(leaving: boolean): Promise<void> {
    this.running = this.once(leaving).finally(() => (this.running = null));
    return this.running;
  }

  private async once(leaving: boolean): Promise<void> {
    const { value } = this.state;
    try {
      this.version = await this.saving.save(value, this.version, leaving);
      this.failures = 0;
      this.saving.onSaved?.(value, this.version);
      if (isSame(value, this.state.value)) {
        writeStored(PREFIX + this.name, null);
        this.change({ saveState: 'saved', problem: null });
      } else {
        writeStored(PREFIX + this.name, { value: this.state.value, basedOn: this.version });
        this.soon(CALM_MS);
      }
    } catch (problem) {
      await this.failed(problem);
    }
  }

  private async failed(problem: unknown): Promise<void> {
    const status = problem instanceof ProblemError ? problem.problem.status : 0;
    if (problem instanceof ProblemError && problem.problem.newer) {
      const theirs = await this.saving.load().catch(() => null);
      if (theirs) return this.change({ saveState: 'newer', problem, theirs });
      // Without theirs nobody can say which one stays: it is tried again, and told then.
      this.change({ saveState: 'waiting', problem });
      this.soon(AGAIN_MS[0]!);
    } else if (status === 0 || status >= 500 || status === 401 || status === 429) {
      this.change({ saveState: 'waiting', problem });
      this.soon(AGAIN_MS[Math.min(this.failures++, AGAIN_MS.length - 1)]!);
    } else this.change({ saveState: 'refused', problem });
  }

  private change(part: Partial<KeptDraft<T>>): void {
    this.state = { ...this.state, ...part };
    this.listeners.forEach((listener) => listener());
  }
}

const keepers = new Map<string, Keeper<unknown>>();

/** Before somebody signs out: whatever the server can have, it has. */
export async function saveAll(): Promise<void> {
  await Promise.allSettled([...keepers.values()].map((keeper) => keeper.flush()));
}

/**
 * When somebody else may be signed in: nothing typed before is saved in their name. It is found again by
 * whoever typed it.
 */
export function forgetAll(): void {
  for (const keeper of keepers.values()) keeper.end();
  keepers.clear();
}

/** What is typed under a name, kept until the server has it. `initial` is what the server has. */
export function useKeeping<T>(
  name: string,
  initial: { value: T; version: number },
  saving: Saving<T>,
): [KeptDraft<T>, Keeper<T>] {
  const { teammate } = useSession();
  const own = `${teammate.id}:${name}`;
  const keeper = useMemo(() => {
    const known = keepers.get(own) as Keeper<T> | undefined;
    // One whose words the server has is begun anew with what it has now.
    if (known && known.snapshot().saveState !== 'saved') return known;
    const made = new Keeper(own, initial, saving);
    keepers.set(own, made as Keeper<unknown>);
    return made;
  }, [own]);
  keeper.saving = saving;
  useEffect(() => {
    const leave = () => void keeper.flush(true).catch(() => undefined);
    const ask = (event: BeforeUnloadEvent) =>
      keeper.snapshot().saveState === 'waiting' && event.preventDefault();
    addEventListener('pagehide', leave);
    addEventListener('beforeunload', ask);
    return () => {
      removeEventListener('pagehide', leave);
      removeEventListener('beforeunload', ask);
      void keeper.flush().catch(() => undefined);
    };
  }, [keeper]);
  return [useSyncExternalStore(keeper.subscribe, keeper.snapshot), keeper];
}

/** What is to be said of where it stands. */
export const SAVE_STATE_WORDS: Record<SaveState, string> = {
  saved: t`Everything is saved`,
  saving: t`Saving…`,
  waiting: t`Not saved yet: the server can’t be reached. It is kept here and tried again`,
  newer: t`Not saved: somebody saved something newer`,
  refused: t`Not saved as it stands`,
};
