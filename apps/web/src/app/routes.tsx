import { Suspense, type ReactNode } from 'react';
import { ErrorBoundary } from 'react-error-boundary';
import { BrowserRouter, Route, Routes } from 'react-router';
import { Frame } from './Frame';
import { page } from './loading';
import { Lost } from './Lost';

/** One page at two addresses: what was begun under "new" goes on under its number. */
const gathering = page(() => import('../gather/Gathering'));

/** Before anybody has signed in. */
const OUTSIDE = {
  '/sign-in': page(() => import('../signin/SignIn')),
  '/forgotten': page(() => import('../signin/Forgotten')),
  '/password/:token': page(() => import('../signin/NewPassword')),
  '/begin': page(() => import('../signin/Begin')),
};

/** Within the frame of stations and Margin. */
const INSIDE = {
  gather: page(() => import('../gather/Batches')),
  'gather/new': gathering,
  'gather/forms': page(() => import('../forms/Forms')),
  'gather/forms/:id': page(() => import('../forms/Form')),
  'gather/feeds': page(() => import('../feeds/Feeds')),
  'gather/feeds/:id': page(() => import('../feeds/FeedPage')),
  'gather/layouts': page(() => import('../gather/Layouts')),
  'gather/work': page(() => import('../gather/Work')),
  'gather/:id': gathering,
  sort: page(() => import('../sort/Supporters')),
  'sort/supporters/:id': page(() => import('../sort/record/Record')),
  'sort/segments': page(() => import('../sort/Segments')),
  'sort/segments/:id': page(() => import('../sort/Segment')),
  'sort/groups': page(() => import('../sort/groups/Groups')),
  'sort/calls': page(() => import('../sort/calls/Calls')),
  'sort/calls/:id': page(() => import('../sort/calls/CallList')),
  'sort/campaigns': page(() => import('../campaigns/Campaigns')),
  'sort/campaigns/:id': page(() => import('../campaigns/Campaign')),
  write: page(() => import('../write/Drafts')),
  'write/templates': page(() => import('../write/templates/Templates')),
  'write/templates/:id': page(() => import('../write/templates/Template')),
  'write/:id': page(() => import('../write/Draft')),
  send: page(() => import('../send/Outgoing')),
  'send/automatic/:id': page(() => import('../automatic/AutomaticPage')),
  'send/campaigns/:id': page(() => import('../campaigns/plan/CampaignPlanPage')),
  'send/:id': page(() => import('../send/LastLookPage')),
  'hear-back': page(() => import('../hearback/Answers')),
  'hear-back/replies': page(() => import('../inbox/Inbox')),
  'hear-back/replies/:id': page(() => import('../inbox/Inbox')),
  'hear-back/:id': page(() => import('../hearback/Results')),
  house: page(() => import('../house/HouseRulesPage')),
  'house/do-not-contact': page(() => import('../house/DoNotContact')),
  'house/proof': page(() => import('../house/Proof')),
  'setup/fields': page(() => import('../setup/fields/Fields')),
  'setup/sender': page(() => import('../setup/SenderPage')),
  'setup/letters': page(() => import('../setup/LettersPage')),
  'setup/sources': page(() => import('../setup/SourcesPage')),
  'setup/files': page(() => import('../setup/Files')),
  'setup/answers': page(() => import('../setup/AutomaticAnswersPage')),
  setup: page(() => import('../setup/Organization')),
  'setup/team': page(() => import('../setup/Team')),
  'setup/you': page(() => import('../setup/You')),
  help: page(() => import('../help/Help')),
};

const today = page(() => import('../today/Today'));

const routesOf = (pages: Record<string, ReactNode>) =>
  Object.entries(pages).map(([path, element]) => <Route key={path} path={path} element={element} />);

/** Which page stands at which address. */
export const Pages = () => (
  <BrowserRouter>
    <ErrorBoundary FallbackComponent={Lost}>
      <Suspense fallback={null}>
        <Routes>
          {routesOf(OUTSIDE)}
          <Route path="/" element={<Frame />}>
            <Route index element={today} />
            {routesOf(INSIDE)}
            <Route path="*" element={<Lost />} />
          </Route>
        </Routes>
      </Suspense>
    </ErrorBoundary>
  </BrowserRouter>
);
