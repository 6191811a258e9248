import { createContext, useContext } from 'react';
import type { AskRule } from '@goodword/core/letter';

/** What the message around asks for; null where it says nothing of its own. */
export const AskContext = createContext<AskRule | null>(null);

export const useAsk = (): AskRule | null => useContext(AskContext);
