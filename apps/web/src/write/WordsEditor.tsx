import { useCallback, useState, type ReactNode } from 'react';
import { t } from '@lingui/core/macro';
import type { AskRule, WrittenWords } from '@goodword/core/letter';
import type { Registry } from '@goodword/core/merge';
import type { Channel } from '@goodword/core/permission';
import { Labelled } from '../ui/basics';
import { AskContext } from './asking';
import { LetterEditor } from './LetterEditor';
import { MannerLine } from './MannerLine';
import { MergeField } from './MergeField';
import { AskPageContext, BringInPage, OwnHtmlPane } from './OwnHtml';
import { ScriptEditor } from './ScriptEditor';
import { TextEditor } from './TextEditor';

interface Props {
  channel: Channel;
  words: WrittenWords & { locale: string | null; ask: AskRule | null; plainly: boolean };
  registry: Registry;
  editable: boolean;
  /** Another number draws the letter anew: its words were changed from outside. */
  drawn: number;
  set: (part: Partial<Props['words']>) => void;
}

function SubjectLine({ words, registry, editable, set }: Omit<Props, 'channel' | 'drawn'>) {
  return (
    <div className="sheet p-4 flex flex-col gap-2">
      <Labelled label={t`Subject`}>
        <MergeField
          className="input"
          beside="line"
          registry={registry}
          readOnly={!editable}
          maxLength={200}
          value={words.subject}
          onChange={(subject) => set({ subject })}
        />
      </Labelled>
      <Labelled label={t`Preview line`}>
        <MergeField
          className="input"
          registry={registry}
          readOnly={!editable}
          maxLength={200}
          value={words.preheader}
          onChange={(preheader) => set({ preheader })}
        />
      </Labelled>
    </div>
  );
}

/** The words of a message or a template, as its channel has them. */
export function WordsEditor(props: Props) {
  const { words, editable, set } = props;
  return (
    <AskContext value={words.ask}>
      <Editors
        {...props}
        foot={<MannerLine words={words} isText={props.channel === 'text'} editable={editable} set={set} />}
      />
    </AskContext>
  );
}

function Editors({ channel, words, registry, editable, drawn, set, foot }: Props & { foot: ReactNode }) {
  // The editor is made anew with the words of a page that was put aside.
  const [swapped, setSwapped] = useState(0);
  const [asked, setAsked] = useState(false);
  const askPage = useCallback(() => setAsked(true), []);
  if (channel === 'text')
    return (
      <>
        <TextEditor
          value={words.text}
          registry={registry}
          editable={editable}
          onChange={(text) => set({ text })}
        />
        {foot}
      </>
    );
  if (channel === 'call')
    return (
      <>
        <ScriptEditor
          value={words.text}
          registry={registry}
          editable={editable}
          onChange={(text) => set({ text })}
        />
        {foot}
      </>
    );
  return (
    <>
      {channel === 'email' && <SubjectLine words={words} registry={registry} editable={editable} set={set} />}
      {words.letter?.own ? (
        <OwnHtmlPane
          letter={words.letter}
          editable={editable}
          onChange={(letter) => (set({ letter }), setSwapped((old) => old + 1))}
          foot={foot}
        />
      ) : (
        <AskPageContext value={channel === 'email' ? askPage : null}>
          <LetterEditor
            key={`${drawn} ${swapped}`}
            value={words.letter}
            registry={registry}
            editable={editable}
            onChange={(letter) => set({ letter })}
            foot={foot}
          />
          <BringInPage open={asked} onClose={() => setAsked(false)} onDone={(letter) => set({ letter })} />
        </AskPageContext>
      )}
    </>
  );
}
