import type { Purpose } from '@goodword/core/permission';
import type { WrittenWords } from '@goodword/core/letter';
import { api } from '../../app/api';
import type { BegunFrom } from './BeginWith';

/** Words to begin with, and what they were kept for. */
export interface BegunWords extends WrittenWords {
  purpose: Purpose | null;
}

/** What was chosen to begin with, with its words; none for a blank sheet. */
export async function beginningWords(
  beginning: BegunFrom,
): Promise<{ name: string | null; words: BegunWords | null; templateId: number | null }> {
  switch (beginning.of) {
    case 'template': {
      const { id, name } = beginning.template;
      return { name, words: await api.get('templates/{id}', { id }), templateId: id };
    }
    case 'starter': {
      const { name, purpose } = beginning.starter;
      return { name, words: { ...beginning.words, purpose }, templateId: null };
    }
    case 'message':
      return { name: beginning.message.name, words: beginning.message, templateId: null };
    case 'blank':
      return { name: null, words: null, templateId: null };
  }
}
