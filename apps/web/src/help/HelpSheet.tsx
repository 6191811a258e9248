import { t } from '@lingui/core/macro';
import type { ReactNode } from 'react';
import type { GuideSection } from './sections';

/** The contents at the left, the guides at the right; at a narrow page the contents go above. */
export function HelpSheet({
  sections,
  onOpen,
  children,
}: {
  sections: readonly (GuideSection & { guide: string })[];
  onOpen: (key: string) => void;
  children: ReactNode;
}) {
  const guides = [...new Set(sections.map(({ guide }) => guide))];
  return (
    <div className="grow min-h-0 grid gap-4 grid-cols-1 min-[900px]:grid-cols-[240px_minmax(0,1fr)]">
      <nav aria-label={t`Contents`} className="overflow-y-auto text-[13px]">
        {guides.map((guide) => (
          <div key={guide} className="pb-3">
            <h2 className="font-semibold">{guide}</h2>
            <ul>
              {sections
                .filter((section) => section.guide === guide)
                .map(({ key, title }) => (
                  <li key={key}>
                    <button className="link text-ink2 text-left min-h-[26px]" onClick={() => onOpen(key)}>
                      {title}
                    </button>
                  </li>
                ))}
            </ul>
          </div>
        ))}
      </nav>
      <div className="sheet p-6 overflow-y-auto" tabIndex={0} role="region" aria-label={t`Guides`}>
        <div className="max-w-[760px]">{children}</div>
      </div>
    </div>
  );
}
