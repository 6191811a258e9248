import { useQuery } from '@tanstack/react-query';
import type { FieldView } from '@goodword/core/contract';
import { get } from '../app/api';
import { plural, useFormat } from '../app/format';
import { useSession } from '../app/session';
import { Button, Heading, Loading } from '../ui/basics';
import { ColumnsStep } from './ColumnsStep';
import { STEPS, useDraft } from './draft';
import { FileStep } from './FileStep';
import { GroupsStep } from './GroupsStep';
import { PermissionStep } from './PermissionStep';
import { Steps } from './Steps';

/** A file on its way in: what it is, what its columns are, where its people go, what they agreed to. */
export default function NewBatch() {
  const { organization } = useSession();
  const format = useFormat();
  const { step, go, file, analysis, reset } = useDraft();
  const fields = useQuery({ queryKey: ['fields'], queryFn: () => get<FieldView[]>('fields') });
  if (!fields.data) return <Loading what="your fields" />;
  const note = analysis
    ? `${format.number(analysis.rows)} ${plural(analysis.rows, 'row', 'rows')} under the header`
    : 'People who agreed to hear from you';
  return (
    <div className="flex flex-col grow min-h-0">
      <Heading title={file?.name ?? 'Bring people in'} note={note}>
        {file && <Button onClick={reset}>Take another file</Button>}
      </Heading>
      <Steps
        steps={[...STEPS, 'Check and bring in']}
        at={step}
        onGo={(to) => (STEPS as readonly string[]).includes(to) && go(to as (typeof STEPS)[number])}
      />
      {step === 'File' && <FileStep fields={fields.data} country={organization.country} />}
      {step === 'Columns' && <ColumnsStep fields={fields.data} country={organization.country} />}
      {step === 'Where they go' && <GroupsStep />}
      {step === 'Permission' && <PermissionStep />}
    </div>
  );
}
