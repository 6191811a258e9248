import { t } from '@lingui/core/macro';
import { useDeferredValue, useEffect } from 'react';
import Markdown from 'react-markdown';
import { useSearchParams } from 'react-router';
import remarkGfm from 'remark-gfm';
import { Empty, Heading } from '../ui/basics';
import { GUIDES } from './guides';
import { HelpSheet } from './HelpSheet';
import { found } from './sections';

/** The guides, to be read from top to bottom or found in by typing. */
export default function Help() {
  const [params, setParams] = useSearchParams();
  const typed = params.get('find') ?? '';
  const at = params.get('at');
  const sections = found(GUIDES, useDeferredValue(typed));
  useEffect(() => {
    if (at) document.getElementById(at)?.scrollIntoView();
  }, [at]);
  return (
    <>
      <Heading title={t`Help`} note={t`How things are done here, and what the messages mean`}>
        <input
          type="search"
          className="input !w-[280px]"
          aria-label={t`Find in the guides`}
          placeholder={t`Find in the guides`}
          value={typed}
          onChange={(event) =>
            setParams(event.target.value ? { find: event.target.value } : {}, { replace: true })
          }
        />
      </Heading>
      <HelpSheet sections={sections} onOpen={(key) => setParams({ at: key }, { replace: true })}>
        {sections.length === 0 ? (
          <Empty title={t`No guide says that`}>
            <p>{t`Try another word, or fewer.`}</p>
          </Empty>
        ) : (
          sections.map((section) => (
            <section key={section.key} id={section.key} className="guide pb-5 scroll-mt-4">
              <p className="text-ink2 text-[12.5px]">{section.guide}</p>
              <h2 className="subtitle pb-1">{section.title}</h2>
              <Markdown remarkPlugins={[remarkGfm]}>{section.text}</Markdown>
            </section>
          ))
        )}
      </HelpSheet>
    </>
  );
}
