import { t } from '@lingui/core/macro';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { RulesView } from '@goodword/core/contract';
import { PRESETS, type HouseRules as Rules, type PlaceKey, type PresetName } from '@goodword/core/permission';
import { speak } from '@goodword/core/words';
import { useDrafting } from '../app/drafting';
import { useMay } from '../app/session';
import { Button, Heading, Loading, ProblemNote } from '../ui/basics';
import { Drawer } from '../ui/dialogs';
import { useMargin, type Note } from '../ui/margin';
import { Unsaved } from '../ui/Unsaved';
import { withoutPlace, withPlace } from './edit';
import { HouseNav } from './HouseNav';
import { PlaceSheet } from './PlaceSheet';
import { reading } from '../app/reading';
import { PlaceList, AddPlace } from './PlaceList';
import { Waiting, Weighing } from './Weighing';

/** Rules of the house, place by place: drafted here, weighed against everybody on file, then made. */
export default function HouseRulesPage() {
  const { data, error } = useQuery(reading('house-rules'));
  // The place that is looked at stays, also when a change was made and the rules come anew.
  const [chosen, setChosen] = useState<PlaceKey | null>(null);
  if (error) return <ProblemNote error={error} />;
  if (!data) return <Loading what={t`the house rules`} />;
  const key = chosen !== null && chosen in data.rules.places ? chosen : data.rules.home;
  return <Editor view={data} start={key} onChoose={setChosen} />;
}

function Editor({
  view,
  start,
  onChoose,
}: {
  view: RulesView;
  start: PlaceKey;
  onChoose: (key: PlaceKey) => void;
}) {
  const may = useMay('owner');
  const draft = useDrafting<Rules>('house-rules', { value: view.rules, version: view.version });
  const { value: rules, set: setRules } = draft;
  const [key, setPlace] = useState(start);
  const setKey = (next: PlaceKey) => {
    setPlace(next);
    onChoose(next);
  };
  const [adding, setAdding] = useState(false);
  const [weighing, setWeighing] = useState(false);
  const changed = draft.isChanged;
  const place = rules.places[key] ?? rules.places['*']!;
  useMargin(notesOf(key, place.preset, changed, () => setWeighing(true), draft.discard));
  return (
    <>
      <Heading title={t`House rules`} note={t`Set once, obeyed everywhere`}>
        {changed && <Button onClick={draft.discard}>{t`Put back`}</Button>}
        {may && (
          <Button
            weight="main"
            disabled={!changed || draft.theirs !== null}
            onClick={() => setWeighing(true)}
          >
            {t`See whom it changes`}
          </Button>
        )}
      </Heading>
      <HouseNav />
      <Unsaved draft={draft} what={t`the rules`} />
      {view.waiting && <Waiting waiting={view.waiting} may={may} />}
      <div className="flex gap-4 grow min-h-0">
        <PlaceList
          rules={rules}
          chosen={key}
          setKey={setKey}
          view={view}
          setAdding={setAdding}
          setRules={setRules}
        />
        <PlaceSheet
          placeKey={key}
          place={place}
          disabled={!may}
          onChange={(change) => setRules(withPlace(rules, key, change))}
          onRemove={
            key === '*' || key === rules.home
              ? null
              : () => (setRules(withoutPlace(rules, key)), setKey(rules.home))
          }
          history={view.history}
        />
      </div>
      <Drawer
        open={adding}
        onClose={() => setAdding(false)}
        title={t`Add a place`}
        note={t`A country, or a region of one that is stricter`}
      >
        <AddPlace rules={rules} onAdd={(next, made) => (setRules(next), setKey(made), setAdding(false))} />
      </Drawer>
      <Drawer
        open={weighing}
        onClose={() => setWeighing(false)}
        title={t`Whom it changes`}
        note={t`Counted over everybody on file, before anything is changed`}
        wide
      >
        <Weighing
          rules={rules}
          version={draft.basedOn}
          onDone={(sent) => (setWeighing(false), draft.saved(sent))}
        />
      </Drawer>
    </>
  );
}

function notesOf(
  key: PlaceKey,
  preset: PresetName,
  changed: boolean,
  weigh: () => void,
  undo: () => void,
): Note[] {
  const sources = PRESETS[preset].sources.map((source, i): Note => ({
    key: `${key}-${i}`,
    tone: 'plain',
    title: speak(source.rule),
    body: source.source,
  }));
  return [
    ...(changed
      ? [
          {
            key: 'changed',
            tone: 'doubt' as const,
            title: t`Not made yet`,
            body: t`What you changed holds for nobody until you have seen whom it changes.`,
            remedy: { words: t`See whom it changes`, act: weigh },
          },
        ]
      : []),
    {
      key: 'counsel',
      tone: 'doubt',
      title: t`Verify with your counsel`,
      body: t`These are a starting point and our reading of the sources below, not legal advice.`,
      ...(changed ? { remedy: { words: t`Put the rules back`, act: undo } } : {}),
    },
    ...sources,
  ];
}
