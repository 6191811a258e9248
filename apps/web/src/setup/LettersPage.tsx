import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useMemo } from 'react';
import {
  compileLetter,
  contrast,
  escapeLines,
  FACES,
  LEAST_CONTRAST,
  LETTER_WIDTHS,
  letterOfText,
  PAPER,
  wrapLetter,
  type Face,
  type HouseStyle,
  type LetterDoc,
} from '@goodword/core/letter';
import { registryOf, render } from '@goodword/core/merge';
import { api } from '../app/api';
import { useDrafting } from '../app/drafting';
import { reading } from '../app/reading';
import { refresh } from '../app/refresh';
import { useMay, useSession } from '../app/session';
import { Button, Heading, Labelled, Loading, ProblemNote } from '../ui/basics';
import { Framed } from '../ui/Framed';
import { useMargin, type Note } from '../ui/margin';
import { Unsaved } from '../ui/Unsaved';
import { SetupNav } from './SetupNav';

const FACE_WORDS: Record<Face, string> = {
  serif: t`with serifs, as in a book`,
  plain: t`plain, without serifs`,
  round: t`wide and round`,
  narrow: t`narrow`,
};

/** A letter that has a bit of everything, to see the looks by. */
function sample(organization: string): LetterDoc {
  const { content = [] } = letterOfText(
    t`Dear friend,\n\nforty planks came down the river on Tuesday, and are drying in the shed.`,
  );
  const link = { type: 'link' as const, attrs: { href: 'https://example.org' } };
  return {
    type: 'doc',
    content: [
      { type: 'heading', attrs: { level: 2 }, content: [{ type: 'text', text: organization }] },
      ...content,
      {
        type: 'paragraph',
        content: [
          { type: 'text', text: t`You can ` },
          { type: 'text', text: t`see the pictures`, marks: [link] },
          { type: 'text', text: '.' },
        ],
      },
      { type: 'button', attrs: { href: 'https://example.org', label: t`Put in a plank` } },
    ],
  };
}

function Sample({ style }: { style: HouseStyle }) {
  const { organization } = useSession();
  const html = useMemo(() => {
    const doc = sample(organization.name);
    const around = {
      registry: registryOf([]),
      style,
      organization: organization.name,
      picture: (src: string) => ({ url: () => src, width: null, height: null }),
    };
    const frame = {
      imprint: organization.name,
      why: t`Why they get it stands here.`,
      leaveWords: t`Leave, or choose what you get`,
      subject: organization.name,
      preheader: '',
      language: organization.locale,
    };
    return render(
      { parts: wrapLetter(compileLetter(doc, around), doc, frame, around).html },
      {},
      escapeLines,
    );
  }, [style, organization]);
  return <Framed title={t`A letter in these looks`} html={html} className="sheet w-full min-h-[560px]" />;
}

function contrastNotes(style: HouseStyle): Note[] {
  const ratio = contrast(style.accent, PAPER);
  const isRead = ratio >= LEAST_CONTRAST;
  return [
    {
      key: 'contrast',
      tone: isRead ? 'good' : 'fault',
      title: isRead ? t`Links can be read` : t`Links are too faint`,
      body: t`${style.accent} on white: ${ratio.toFixed(2)} to 1. At least 4.5 to 1 is asked for (WCAG 2.2).`,
    },
    {
      key: 'button',
      tone: 'plain',
      title: t`Buttons`,
      body: t`Words on them are white or black, whichever is read better.`,
    },
  ];
}

function LogoPart({ style, set }: { style: HouseStyle; set: (part: Partial<HouseStyle>) => void }) {
  const { data } = useQuery(reading('organization'));
  if (!data?.logo)
    return <p className="text-ink2">{t`There is no logo. It is put in under Organization.`}</p>;
  return (
    <div className="flex items-end gap-4">
      <label className="flex items-center gap-2 pb-2">
        <input
          type="checkbox"
          checked={style.logo !== null}
          onChange={({ target }) => set({ logo: target.checked ? { src: data.logo!, width: 160 } : null })}
        />
        {t`The logo stands at the head of letters`}
      </label>
      {style.logo && (
        <Labelled label={t`As wide as (pixels)`}>
          <input
            className="input !w-[110px]"
            type="number"
            min={24}
            max={600}
            value={style.logo.width}
            onChange={({ target }) => set({ logo: { src: data.logo!, width: Number(target.value) } })}
          />
        </Labelled>
      )}
    </div>
  );
}

function Colour({
  label,
  value,
  onChange,
}: {
  label: string;
  value: string;
  onChange: (value: string) => void;
}) {
  return (
    <Labelled label={label}>
      <span className="flex gap-2">
        <input
          type="color"
          className="h-[36px] w-[48px]"
          aria-label={t`${label}, by eye`}
          value={value.toLowerCase()}
          onChange={({ target }) => onChange(target.value.toUpperCase())}
        />
        <input
          className="input !w-[120px] font-mono"
          pattern="#[0-9A-Fa-f]{6}"
          maxLength={7}
          value={value}
          onChange={({ target }) => onChange(target.value)}
        />
      </span>
    </Labelled>
  );
}

function StyleForm({ server }: { server: HouseStyle }) {
  const queryClient = useQueryClient();
  const may = useMay('owner');
  const { data: organization } = useQuery(reading('organization'));
  const draft = useDrafting<HouseStyle, HouseStyle>('house-style', { value: server, version: server });
  const style = draft.value;
  const set = (part: Partial<HouseStyle>) => draft.set({ ...style, ...part });
  const save = useMutation({
    mutationFn: (sent: HouseStyle) =>
      api.put('organization/style', { body: { style: sent, was: draft.basedOn } }),
    onError: () => refresh(queryClient, 'organization'),
    onSuccess: async (_done, sent) => {
      await refresh(queryClient, 'organization');
      draft.saved(sent);
    },
  });
  const sound = /^#[0-9a-f]{6}$/i.test(style.main) && /^#[0-9a-f]{6}$/i.test(style.accent);
  useMargin(sound ? contrastNotes(style) : []);
  const named = new Intl.DisplayNames('en', { type: 'language' });
  return (
    <div className="grid grid-cols-2 gap-4 items-start overflow-y-auto">
      <form
        className="sheet p-5 flex flex-col gap-4"
        onSubmit={(event) => (event.preventDefault(), save.mutate(style))}
      >
        <LogoPart style={style} set={set} />
        <div className="grid grid-cols-2 gap-3">
          <Colour label={t`Buttons`} value={style.main} onChange={(main) => set({ main })} />
          <Colour label={t`Links`} value={style.accent} onChange={(accent) => set({ accent })} />
          <Labelled label={t`Letters`}>
            <select
              className="input"
              value={style.face}
              onChange={({ target }) => set({ face: target.value as Face })}
            >
              {(Object.keys(FACES) as Face[]).map((face) => (
                <option key={face} value={face}>
                  {FACE_WORDS[face]}
                </option>
              ))}
            </select>
          </Labelled>
          <Labelled label={t`Width in pixels`}>
            <input
              className="input"
              type="number"
              min={LETTER_WIDTHS.least}
              max={LETTER_WIDTHS.most}
              value={style.width}
              onChange={({ target }) => set({ width: Number(target.value) })}
            />
          </Labelled>
        </div>
        {(organization?.languages ?? []).map((language) => (
          <Labelled
            key={language}
            label={t`At the foot, in ${named.of(language) ?? language}`}
            hint={t`Above who sends it: a number of the register, a line on taxes.`}
          >
            <textarea
              className="input"
              rows={2}
              maxLength={600}
              value={style.footer[language] ?? ''}
              onChange={({ target }) => set({ footer: { ...style.footer, [language]: target.value } })}
            />
          </Labelled>
        ))}
        <Unsaved draft={draft} what={t`how letters look`} />
        <ProblemNote error={save.error} />
        {may ? (
          <Button
            weight="main"
            type="submit"
            className="self-start"
            disabled={!draft.isChanged || draft.theirs !== null || save.isPending || !sound}
          >
            {t`Save`}
          </Button>
        ) : (
          <p className="text-ink2">
            <Trans>An owner can change this.</Trans>
          </p>
        )}
      </form>
      {sound && <Sample style={style} />}
    </div>
  );
}

/** How the letters of the house look: logo, colours, letters, width, and words at the foot. */
export default function LettersPage() {
  const { data, error } = useQuery(reading('organization/style'));
  if (error) return <ProblemNote error={error} />;
  if (!data) return <Loading what={t`how letters look`} />;
  return (
    <>
      <Heading title={t`Setup`} page={t`Letters`} note={t`How letters look`} />
      <SetupNav />
      <StyleForm server={data} />
    </>
  );
}
