import { useState } from 'react';
import type { KnownField } from '@goodword/core/intake';
import { Button } from '../ui/basics';
import { useDraft } from './draft';

/** Drop a file, choose one, or paste rows from a spreadsheet. */
export function FileStep({ fields, country }: { fields: KnownField[]; country: string }) {
  const { take, reading, problem } = useDraft();
  const [pasted, setPasted] = useState('');
  const [over, setOver] = useState(false);
  const accept = (file: File | undefined) => file && void take(file, fields, country);
  return (
    <div className="grid grid-cols-2 gap-4 grow min-h-0">
      <label
        onDragOver={(event) => (event.preventDefault(), setOver(true))}
        onDragLeave={() => setOver(false)}
        onDrop={(event) => (event.preventDefault(), setOver(false), accept(event.dataTransfer.files[0]))}
        className={`sheet flex flex-col items-start justify-center gap-3 p-10 cursor-pointer focus-within:outline-2 focus-within:outline-verdigris ${over ? 'bg-[#eaf3f1]' : ''}`}
      >
        <span className="subtitle">Drop a CSV file here</span>
        <span className="text-ink2">
          One header row, one person a row, and at least an email or a mobile for each. Separators and encodings are found by themselves.
        </span>
        <span className="inline-flex items-center rounded-paper border border-ink bg-ink text-white px-4 min-h-[36px] font-semibold">
          {reading ? 'Reading it…' : 'Choose a file'}
        </span>
        <input
          type="file"
          accept=".csv,.tsv,.txt,text/csv"
          className="sr-only"
          aria-label="Choose a file"
          onChange={(event) => accept(event.target.files?.[0])}
        />
        {problem && (
          <span role="alert" className="text-madder font-semibold">
            {problem}
          </span>
        )}
      </label>
      <div className="sheet p-6 flex flex-col gap-3">
        <h2 className="subtitle" id="paste-title">
          Or paste rows
        </h2>
        <p className="text-ink2">Copy them in your spreadsheet, header row and all.</p>
        <textarea
          aria-labelledby="paste-title"
          className="input font-mono text-[12.5px] grow min-h-[160px]"
          value={pasted}
          onChange={(event) => setPasted(event.target.value)}
          placeholder={'Email\tFirst name\tMobile'}
        />
        <Button
          weight="main"
          className="self-start"
          disabled={pasted.trim() === '' || reading}
          onClick={() => accept(new File([pasted], 'Pasted rows.csv', { type: 'text/csv' }))}
        >
          Read the pasted rows
        </Button>
      </div>
    </div>
  );
}
