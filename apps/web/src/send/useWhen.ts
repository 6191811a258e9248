import { useState } from 'react';
import type { MessageView } from '@goodword/core/contract';
import { isHandedOver } from '@goodword/core/permission';

/** When a message leaves as it was chosen, and what is wrong with that. */
export interface WhenChosen {
  /** ISO; empty for now. */
  at: string;
  setAt: (next: string) => void;
  /** By the clock of each of them. */
  ownTime: boolean;
  setOwnTime: (next: boolean) => void;
  /** Over so many hours; null for all at once. */
  spreadHours: number | null;
  setSpreadHours: (next: number | null) => void;
  /** Of a hundred so many are kept without it; null for none. */
  keptShare: number | null;
  setKeptShare: (next: number | null) => void;
  /** What is typed there can't be read: that is no "now". */
  unread: boolean;
  setUnread: (next: boolean) => void;
  past: boolean;
}

/** When it leaves, and by whose clock. */
export function useWhen(channel: MessageView['channel'] | undefined): WhenChosen {
  const [at, setAt] = useState('');
  const [own, setOwnTime] = useState(false);
  const [unread, setUnread] = useState(false);
  const [spread, setSpreadHours] = useState<number | null>(null);
  const [kept, setKeptShare] = useState<number | null>(null);
  return {
    ...{ at, setAt, setOwnTime, unread, setUnread, setSpreadHours, setKeptShare },
    keptShare: channel && isHandedOver(channel) ? kept : null,
    spreadHours: channel && isHandedOver(channel) ? spread : null,
    ownTime: own && at !== '' && channel !== undefined && isHandedOver(channel),
    past: at !== '' && Date.parse(at) <= Date.now(),
  };
}
