import type { Cause, Wait } from '@goodword/core/automations';
import type {
  AutomationWhole,
  Page,
  SaveAutomationBody,
  VisitRow,
  VisitState,
} from '@goodword/core/contract';
import type { IntakePlan } from '@goodword/core/intake';
import { LeavingService } from '../automatic/leaving.service';
import { TakingUpService } from '../automatic/taking-up.service';
import { eventually, houseDay, type TestHouse } from './harness';
import { agreed, bringIn, letterOf, STEP_COLUMNS } from './steps';
import { personBy } from './supporter';

const DAY_MS = 86_400_000;
/** No wait at all. */
export const AT_ONCE: Wait = { n: 0, unit: 'minutes', at: null };
const SAID_YES: IntakePlan['permission'] = {
  email: agreed('appeals', 'news', 'service'),
  text: agreed('appeals', 'news', 'service'),
};
/** So different that nobody is taken for somebody of another test. */
const FAMILIES = [
  ...['Abara', 'Bergstrom', 'Castillo', 'Dumont', 'Eriksen', 'Fujita', 'Grady', 'Hossain', 'Ivanov'],
  ...['Jimenez', 'Kowalski', 'Lindqvist', 'Moreau', 'Novak', 'Okonkwo', 'Petrov', 'Quispe', 'Rahimi'],
];

/** What tests of automatic messages do again and again, in one house. */
export function automaticMessages(house: () => TestHouse) {
  let made = 0;
  const show = (id: number) => house().client.get<AutomationWhole>(`/api/automations/${id}`);
  const visits = async (id: number, state: VisitState) =>
    (await house().client.get<Page<VisitRow>>(`/api/automations/${id}/people?state=${state}`)).rows;

  async function write(messageId: number, subject: string, purpose = 'news') {
    await house().client.put(`/api/messages/${messageId}`, {
      ...{ name: subject, purpose, listId: null, subject, preheader: '', text: '', basedOn: 0 },
      letter: letterOf('Thank you, {First name, or "neighbour"}.'),
    });
    await house().client.post(`/api/messages/${messageId}/test`);
  }
  return {
    /** A number that no other thing of the house has. */
    next: () => ++made,
    show,
    visits,
    write,
    /** People who said yes to everything where nothing else is given, `p0@…`, `p1@…`, each with a mobile. */
    people: async (count: number, permission = SAID_YES) => {
      const n = ++made;
      const domain = `auto${n}.example.org`;
      const mobiles = Array.from({ length: count }, (_none, i) => `206556${1000 + n * 30 + i}`);
      const rows = mobiles.map(
        (mobile, i) => `p${i}@${domain},P${i},${FAMILIES[n % FAMILIES.length]},${mobile}`,
      );
      await bringIn(house().client, ['Email,First,Last,Mobile', ...rows, ''].join('\n'), {
        columns: STEP_COLUMNS,
        permission,
      });
      const ids = await Promise.all(
        rows.map(async (_row, i) => (await personBy(house().client, `p${i}@${domain}`)).id),
      );
      const mailsTo = (i: number) => house().sink.mails.filter(({ to }) => to === `p${i}@${domain}`);
      return { domain, ids, mailsTo, mobiles: mobiles.map((mobile) => `+1${mobile}`) };
    },
    make: async (cause: Cause, values: Partial<SaveAutomationBody> = {}) => {
      const name = `Automatic ${++made}`;
      const { id } = await house().client.post<{ id: number }>('/api/automations', { name, cause });
      const { version, again, stops } = await show(id);
      const body = { name, cause, again, stops, unless: null, ...values, basedOn: version };
      await house().client.put(`/api/automations/${id}`, body);
      return id;
    },
    step: async (id: number, subject: string, wait = AT_ONCE, purpose = 'news') => {
      const body = { name: subject, channel: 'email', wait };
      const { id: messageId } = await house().client.post<{ id: number }>(
        `/api/automations/${id}/steps`,
        body,
      );
      await write(messageId, subject, purpose);
      return messageId;
    },
    on: async (id: number, body: { days?: number; people?: number } = {}) => {
      const { version } = await show(id);
      return house().client.call<{ detail: string }>('POST', `/api/automations/${id}/on`, {
        ...{ days: 0, people: 0, ...body, basedOn: version },
      });
    },
    off: async (id: number) =>
      house().client.post(`/api/automations/${id}/off`, { basedOn: (await show(id)).version }),
    give: (person: number, amount: number, day = houseDay()) =>
      house().client.post(`/api/supporters/${person}/gifts`, { amount, on: day }),
    tag: async (name: string) =>
      (await house().client.post<{ id: number }>('/api/tags', { name: `${name} ${++made}` })).id,
    putOn: (person: number, tagId: number) =>
      house().client.call('PUT', `/api/supporters/${person}/tags/${tagId}`),
    /** Looks for what happened as if it were so many days later. */
    lookIn: (id: number, days: number) =>
      house()
        .app.get(TakingUpService)
        .look(house().scope, id, new Date(Date.now() + days * DAY_MS)),
    leaveAt: (id: number, at: Date) => house().app.get(LeavingService).leave(house().scope, id, at),
    counted: (id: number, part: Partial<AutomationWhole['counts']>) =>
      eventually(
        `counts ${JSON.stringify(part)}`,
        async () => (await show(id)).counts,
        (counts) => Object.entries(part).every(([state, n]) => counts[state as VisitState] === n),
      ),
  };
}
