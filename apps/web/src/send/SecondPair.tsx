import type { UseMutationResult } from '@tanstack/react-query';
import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import type { LastLook as Look } from '@goodword/core/contract';
import { useFormat } from '../app/format';
import { useMay } from '../app/session';

type Second = NonNullable<Look['second']>;

/** Why it wants somebody else, or what they agreed to. */
function Why({ look, second }: { look: Look; second: Second }) {
  const format = useFormat();
  const [now, then, above] = [look.reached, second.reached, second.above].map(format.number);
  if (second.own) return <Trans>You agreed to it for {then}: another may send it.</Trans>;
  if (second.holds)
    return (
      <Trans>
        {second.by} agreed to it for {then}.
      </Trans>
    );
  if (second.why === 'asks')
    return (
      <Trans>
        <b>A service message that asks</b> (“{look.asks.join('”, “')}”) goes to people who said no to that.
        Make it an appeal, or let somebody else read it.
      </Trans>
    );
  return second.by === null ? (
    <Trans>
      <b>It goes to more than {above}</b>: somebody else has to agree to it before it leaves.
    </Trans>
  ) : (
    <Trans>
      {second.by} agreed to it for {then}. It goes to {now} now, or to another group: it has to be agreed to
      anew.
    </Trans>
  );
}

/** What asks, and what goes to many, wants another's agreement to what it is now. */
export function SecondPair({ look, agree }: { look: Look; agree: UseMutationResult<void, Error, void> }) {
  const may = useMay('organizer');
  const format = useFormat();
  const { second } = look;
  if (!second) return null;
  return (
    <p className={`pb-3 ${second.holds ? 'text-verdigris' : 'text-ochre'}`} role="status">
      <Why look={look} second={second} />{' '}
      {may && !second.own && !second.holds && (
        <button className="link" disabled={agree.isPending} onClick={() => agree.mutate()}>
          {t`I agree to it for ${format.number(look.reached)}, and another may send it`}
        </button>
      )}
    </p>
  );
}
