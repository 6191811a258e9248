import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useState } from 'react';
import { BATCH_KINDS, writeCsv, type BatchKind } from '@goodword/core/intake';
import { Button, Labelled } from '../ui/basics';
import { useMargin } from '../ui/margin';
import { KIND_WORDS } from './columnWords';
import { useTyped } from '../app/drafting';
import { useDraft } from './draft';
import type { HouseVocabulary } from './useHouse';

const ACCEPT = '.csv,.tsv,.txt,.xlsx,.xls,.ods,.vcf,.vcard,.htm,.html,text/csv,text/vcard';

/** What the file is, and the file: dropped, chosen, pasted from a spreadsheet, or one person typed in. */
export function FileStep({ house }: { house: HouseVocabulary }) {
  const { take, reading, problem } = useDraft();
  const [what, setWhat] = useState<BatchKind | null>(null);
  /** Whether the server has it then. */
  const accept = async (file: File | undefined): Promise<boolean> => {
    if (!file) return false;
    await take(file, house, what);
    return useDraft.getState().batchId !== null;
  };
  useMargin([
    {
      key: 'prepared',
      tone: 'plain',
      title: t`No file yet?`,
      body: t`A blank sheet with your own fields and an explaining line.`,
      remedy: { words: t`Download it as XLSX`, act: () => void window.open('/api/batches/prepared.xlsx') },
    },
    {
      key: 'prepared-csv',
      tone: 'plain',
      title: t`Or as plain text`,
      remedy: { words: t`Download it as CSV`, act: () => void window.open('/api/batches/prepared.csv') },
    },
  ]);
  return (
    <div className="grow min-h-0 overflow-y-auto flex flex-col gap-4">
      <Kinds what={what} onChoose={setWhat} />
      <div className="grid grid-cols-2 gap-4 grow min-h-0">
        <Drop reading={reading !== null} problem={problem} onFile={(file) => void accept(file)} />
        <div className="flex flex-col gap-4">
          <Paste busy={reading !== null} onFile={accept} />
          <OnePerson busy={reading !== null} onFile={accept} />
        </div>
      </div>
    </div>
  );
}

function Kinds({ what, onChoose }: { what: BatchKind | null; onChoose: (what: BatchKind | null) => void }) {
  const offers: [BatchKind | null, string, string][] = [
    [null, t`See by its columns`, t`And ask, where they leave a doubt`],
    ...BATCH_KINDS.map((kind): [BatchKind, string, string] => [kind, ...KIND_WORDS[kind]]),
  ];
  return (
    <fieldset className="sheet px-5 pt-3 pb-4">
      <legend className="sr-only">{t`What the file is`}</legend>
      <p className="subtitle pb-2" aria-hidden="true">
        {t`What is in it?`}
      </p>
      <div className="grid grid-cols-5 gap-4">
        {offers.map(([kind, words, hint]) => (
          <label key={words} className="flex gap-2 items-start">
            <input
              type="radio"
              name="what"
              className="mt-1 accent-[#0F766B]"
              checked={what === kind}
              onChange={() => onChoose(kind)}
            />
            <span>
              <b>{words}</b>
              <span className="block text-ink2 text-[12.5px]">{hint}</span>
            </span>
          </label>
        ))}
      </div>
    </fieldset>
  );
}

function Drop({
  reading,
  problem,
  onFile,
}: {
  reading: boolean;
  problem: string | null;
  onFile: (file: File | undefined) => void;
}) {
  const [over, setOver] = useState(false);
  return (
    <label
      onDragOver={(event) => (event.preventDefault(), setOver(true))}
      onDragLeave={() => setOver(false)}
      onDrop={(event) => (event.preventDefault(), setOver(false), onFile(event.dataTransfer.files[0]))}
      className={`sheet flex flex-col items-start justify-center gap-3 p-10 cursor-pointer focus-within:outline-2 focus-within:outline-verdigris ${over ? 'bg-[#eaf3f1]' : ''}`}
    >
      <span className="subtitle">{t`Drop a file here`}</span>
      <span className="text-ink2">
        <Trans>
          A spreadsheet (XLSX, ODS, XLS), a text file (CSV, TSV) or contacts (vCard). One header row, one
          person a row, and at least an email or a mobile for each. Sheets, title rows, separators and
          encodings are found by themselves.
        </Trans>
      </span>
      <span className="inline-flex items-center rounded-paper border border-ink bg-ink text-white px-4 min-h-[36px] font-semibold">
        {reading ? t`Reading it…` : t`Choose a file`}
      </span>
      <input
        type="file"
        accept={ACCEPT}
        className="sr-only"
        aria-label={t`Choose a file`}
        onChange={(event) => onFile(event.target.files?.[0])}
      />
      {problem && (
        <span role="alert" className="text-madder font-semibold">
          {problem}
        </span>
      )}
    </label>
  );
}

/** Kept in the browser, as far as it holds, until it was read. */
function Paste({ busy, onFile }: { busy: boolean; onFile: (file: File) => Promise<boolean> }) {
  const draft = useTyped('pasted', '');
  const pasted = draft.value;
  const read = async () => {
    if (await onFile(new File([pasted], t`Pasted rows` + '.csv', { type: 'text/csv' }))) draft.discard();
  };
  return (
    <div className="sheet p-5 flex flex-col gap-2 grow">
      <h2 className="subtitle" id="paste-title">
        {t`Or paste rows, or a list of addresses`}
      </h2>
      <textarea
        aria-labelledby="paste-title"
        className="input font-mono text-[12.5px] grow min-h-[90px]"
        value={pasted}
        onChange={(event) => draft.set(event.target.value)}
        placeholder={'Email\tFirst name\tMobile'}
      />
      <Button
        weight="main"
        className="self-start"
        disabled={pasted.trim() === '' || busy}
        onClick={() => void read()}
      >
        {t`Read the pasted rows`}
      </Button>
    </div>
  );
}

const PERSON = [t`Email`, t`First name`, t`Last name`, t`Mobile`] as const;

/** One person goes the same way as a thousand: with their permission, and matched to who is here. */
function OnePerson({ busy, onFile }: { busy: boolean; onFile: (file: File) => Promise<boolean> }) {
  const draft = useTyped<Record<string, string>>('one-person', {});
  const cells = draft.value;
  const filled = PERSON.filter((name) => cells[name]?.trim());
  const take = async () => {
    const csv = writeCsv(filled, [filled.map((name) => cells[name]!.trim())]);
    const name = [cells['First name'], cells['Last name']].filter(Boolean).join(' ') || t`One person`;
    if (await onFile(new File([csv], `${name}.csv`, { type: 'text/csv' }))) draft.discard();
  };
  return (
    <form
      className="sheet p-5 flex flex-col gap-2"
      onSubmit={(event) => (event.preventDefault(), void take())}
      aria-labelledby="one-title"
    >
      <h2 className="subtitle" id="one-title">
        {t`Or type one person in`}
      </h2>
      <div className="grid grid-cols-2 gap-2">
        {PERSON.map((name) => (
          <Labelled key={name} label={name}>
            <input
              className="input"
              value={cells[name] ?? ''}
              maxLength={254}
              onChange={(event) => draft.set({ ...cells, [name]: event.target.value })}
            />
          </Labelled>
        ))}
      </div>
      <Button
        type="submit"
        className="self-start"
        disabled={busy || !(cells.Email?.trim() || cells.Mobile?.trim())}
      >
        {t`Go on with this person`}
      </Button>
    </form>
  );
}
