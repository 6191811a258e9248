import { t } from '@lingui/core/macro';
import { Link } from 'react-router';
import { Empty } from '../ui/basics';

/** For addresses that lead nowhere, and for faults of ours. */
export function Lost({ error }: { error?: unknown }) {
  return (
    <div className="sheet m-5">
      <Empty title={error ? t`This view could not be drawn` : t`There is nothing at this address`}>
        <p>
          {error
            ? t`Nothing that you saved is lost. Load the page again; if it happens again, go back to Today.`
            : t`It may have been deleted, or the address was cut short.`}
        </p>
        <Link className="link text-ink" to="/">
          {t`Go to Today`}
        </Link>
      </Empty>
    </div>
  );
}
