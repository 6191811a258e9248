import { t } from '@lingui/core/macro';

/** Where a letter of one person can be read as it would be printed; of the first supporter without one. */
export const letterPageAt = (id: number, supporterId?: number) =>
  `/api/messages/${id}/letter-page${supporterId ? `?supporterId=${supporterId}` : ''}`;

/** The letter on its paper, in a window of its own. */
export function LetterPageLink({ id, supporterId }: { id: number; supporterId?: number }) {
  return (
    <a className="link" href={letterPageAt(id, supporterId)} target="_blank" rel="noreferrer">
      {t`See it on paper`}
    </a>
  );
}
