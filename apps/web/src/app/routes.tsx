import type { ComponentType } from 'react';
import { createBrowserRouter } from 'react-router';
import { Frame } from './Frame';
import { Lost } from './Lost';

/** A route whose code is loaded when it is first opened. */
const page = (load: () => Promise<{ default: ComponentType }>) => ({
  lazy: async () => ({ Component: (await load()).default }),
});

export const router = createBrowserRouter([
  { path: '/sign-in', ...page(() => import('../signin/SignIn')) },
  { path: '/forgotten', ...page(() => import('../signin/Forgotten')) },
  { path: '/password/:token', ...page(() => import('../signin/NewPassword')) },
  { path: '/begin', ...page(() => import('../signin/Begin')) },
  {
    path: '/',
    element: <Frame />,
    errorElement: <Lost />,
    children: [
      { index: true, ...page(() => import('../today/Today')) },
      { path: 'gather', ...page(() => import('../gather/Batches')) },
      { path: 'gather/new', ...page(() => import('../gather/Gathering')) },
      { path: 'gather/forms', ...page(() => import('../forms/Forms')) },
      { path: 'gather/forms/:id', ...page(() => import('../forms/Form')) },
      { path: 'gather/layouts', ...page(() => import('../gather/Layouts')) },
      { path: 'gather/work', ...page(() => import('../gather/Work')) },
      { path: 'gather/:id', ...page(() => import('../gather/Gathering')) },
      { path: 'sort', ...page(() => import('../sort/Supporters')) },
      { path: 'sort/supporters/:id', ...page(() => import('../sort/record/Record')) },
      { path: 'sort/segments', ...page(() => import('../sort/Segments')) },
      { path: 'sort/segments/:id', ...page(() => import('../sort/Segment')) },
      { path: 'sort/groups', ...page(() => import('../sort/groups/Groups')) },
      { path: 'sort/calls', ...page(() => import('../sort/calls/Calls')) },
      { path: 'sort/calls/:id', ...page(() => import('../sort/calls/CallList')) },
      { path: 'sort/campaigns', ...page(() => import('../campaigns/Campaigns')) },
      { path: 'sort/campaigns/:id', ...page(() => import('../campaigns/Campaign')) },
      { path: 'write', ...page(() => import('../write/Drafts')) },
      { path: 'write/:id', ...page(() => import('../write/Draft')) },
      { path: 'send', ...page(() => import('../send/Outgoing')) },
      { path: 'send/:id', ...page(() => import('../send/LastLookPage')) },
      { path: 'hear-back', ...page(() => import('../hearback/Answers')) },
      { path: 'hear-back/replies', ...page(() => import('../hearback/Replies')) },
      { path: 'hear-back/:id', ...page(() => import('../hearback/Results')) },
      { path: 'house', ...page(() => import('../house/HouseRulesPage')) },
      { path: 'house/do-not-contact', ...page(() => import('../house/DoNotContact')) },
      { path: 'house/proof', ...page(() => import('../house/Proof')) },
      { path: 'setup/fields', ...page(() => import('../setup/fields/Fields')) },
      { path: 'setup/files', ...page(() => import('../setup/Files')) },
      { path: 'setup/answers', ...page(() => import('../setup/AutomaticAnswersPage')) },
      { path: 'setup', ...page(() => import('../setup/Organization')) },
      { path: 'setup/team', ...page(() => import('../setup/Team')) },
      { path: 'setup/you', ...page(() => import('../setup/You')) },
      { path: 'help', ...page(() => import('../help/Help')) },
      { path: '*', element: <Lost /> },
    ],
  },
]);
