import { readdirSync, readFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import type { Schema } from 'joi';
import { AFFECTED } from '@goodword/core/changes';
import { roleReaches, ROLES } from '@goodword/core/team';
import { openApiOf, routesOf } from './platform/openapi';
import { Client, openTestHouse, type TestHouse } from './testing/harness';
import { affectedParts } from './testing/rooms';

let house: TestHouse;
beforeAll(async () => {
  house = await openTestHouse();
});
afterAll(() => house.close());

/** What replaces nothing that somebody typed, and why. */
const NEED_NOT: Record<string, string> = {
  'put /api/batches/:id/plan': 'the draft that is kept right before it names its version',
  'put /api/batches/:id/reading': 'begins the batch anew from its file, which stays',
  'put /api/campaigns/:id/roster': 'moves the people who are named, each with a line in the history',
  'put /api/forms/:id/open': 'open or closed',
  'put /api/house/fields/:id/type':
    'refused where a value of now does not convert; what will is shown before',
  'put /api/house/fields/order': 'an order, nothing typed',
  'put /api/sender/limits': 'three numbers of one provider, with a line in the history',
  'put /api/sender/number': 'three facts of one number, with a line in the history',
  'put /api/lists/folder': 'moves the lists that are named',
  'put /api/lists/order': 'an order, nothing typed',
  'put /api/me/password': 'names the password of before',
  'put /api/messages/:id/notes/:noteId': 'settled or open, nothing typed',
  'put /api/organization/logo': 'a picture in the place of another, which stays in the library',
  'put /api/session/chapter': 'where one works',
  'put /api/supporters/:id/fields/:fieldId/file':
    'the file of before stays, and is put back from the history',
  'put /api/supporters/:id/household': 'joins two people, taken back from the history',
  'put /api/supporters/:id/lists/:listId': 'puts one person on one list',
  'put /api/supporters/:id/tags/:tagId': 'puts one tag on one person',
};
const partsOf = (body: Schema) => (body.describe() as { keys?: object }).keys ?? {};

const address = (path: string) => path.replace(/:token\b/, 'x').replace(/:\w+/g, '999999');

describe('every route', () => {
  test('declares who may call it', () => {
    const routes = routesOf(house.app);
    expect(routes.length).toBeGreaterThan(60);
    expect(routes.filter((route) => !route.rule).map((route) => route.handler)).toEqual([]);
  });

  test('that anyone may call is on this list, and each has its own proof or gives nothing away', () => {
    const open = routesOf(house.app)
      .filter((route) => route.rule?.role === 'anyone')
      .map((route) => `${route.method} ${route.path}`);
    expect(open.sort()).toEqual([
      'get /api/beginning',
      'get /api/password/:token',
      'get /choices/:token',
      'get /choices/:token/data.json',
      'get /confirm/:token',
      'get /f/:token',
      'get /health/live',
      'get /health/ready',
      'get /join/:slug',
      'get /join/:slug/privacy',
      'get /join/:slug/qr.png',
      'get /join/:slug/qr.svg',
      'get /join/form.js',
      'get /join/frame.js',
      'get /leave/:token',
      'get /media/:id',
      'get /media/:id/:width',
      'get /metrics',
      'get /never-ask/:token',
      'get /o/:token.gif',
      'post /api/beginning',
      'post /api/password/:token',
      'post /api/password/forgotten',
      'post /api/session',
      'post /choices/:token',
      'post /confirm/:token',
      'post /hooks/feeds/:key',
      'post /hooks/text',
      'post /join/:slug',
      'post /join/:slug/begun',
      'post /leave/:token',
      'post /never-ask/:token',
    ]);
  });

  test('that changes what is there says what it was begun from, or why it need not', () => {
    const begunFrom = ['basedOn', 'was', 'version'];
    const without = routesOf(house.app)
      .filter(
        ({ method, rule }) =>
          ['put', 'patch'].includes(method) &&
          !(rule?.body && begunFrom.some((part) => part in partsOf(rule.body!))),
      )
      .map(({ method, path }) => `${method} ${path}`);
    expect(without.sort()).toEqual(Object.keys(NEED_NOT).sort());
  });

  test('is closed without a session', async () => {
    const stranger = new Client(house.config.PUBLIC_URL);
    for (const { method, path, rule } of routesOf(house.app)) {
      if (rule?.role === 'anyone') continue;
      expect([method, path, (await stranger.call(method.toUpperCase(), address(path))).status]).toEqual([
        method,
        path,
        401,
      ]);
    }
  });

  test('is closed to a role below its own', async () => {
    for (const role of ROLES) {
      const client = await house.as(role);
      for (const { method, path, rule } of routesOf(house.app)) {
        if (!rule || rule.role === 'anyone' || roleReaches(role, rule.role)) continue;
        expect([role, method, path, (await client.call(method.toUpperCase(), address(path))).status]).toEqual(
          [role, method, path, 403],
        );
      }
    }
  });

  test('that changes something wants the CSRF word', async () => {
    const client = await house.as('owner');
    client.forgetCsrf();
    expect((await client.call('POST', '/api/tags', { name: 'x' })).status).toBe(403);
    expect((await client.call('GET', '/api/tags')).status).toBe(200);
  });

  test('that changes something says what else is to be read again: whatever reads a table that it writes', () => {
    const told = Object.entries(AFFECTED).map(([part, others]) => [part, [...others].sort()]);
    const made = Object.entries(affectedParts()).map(([part, others]) => [part, others.sort()]);
    expect(told).toEqual(made);
  });

  test('stands in the OpenAPI document with what it takes', () => {
    const { paths, components } = openApiOf(house.app);
    for (const { method, path } of routesOf(house.app))
      expect(paths[path.replace(/:(\w+)/g, '{$1}')]).toHaveProperty(method);
    const plan = JSON.stringify(components?.schemas?.IntakePlan);
    for (const word of ['columns', 'permission', 'voucher', 'existing']) expect(plan).toContain(word);
  });
});

test('wrong input is told field by field (RFC 9457)', async () => {
  const client = await house.as('owner');
  const answer = await client.call<{ title: string; status: number; faults: { field: string }[] }>(
    'POST',
    '/api/messages',
    {
      name: '',
      channel: 'pigeon',
    },
  );
  expect(answer.headers.get('content-type')).toContain('application/problem+json');
  expect(answer.body).toMatchObject({ status: 422, title: 'Something needs mending' });
  expect(answer.body.faults.map((fault) => fault.field).sort()).toEqual(['channel', 'name', 'purpose']);
});

test('a wrong password and an unknown address are told alike', async () => {
  const client = new Client(house.config.PUBLIC_URL);
  const tries = await Promise.all(
    ['owner.all@lanternferry.test', 'nobody@lanternferry.test'].map((email) =>
      client.call<{ detail: string }>('POST', '/api/session', { email, password: 'wrong' }),
    ),
  );
  expect(tries.map((one) => one.status)).toEqual([401, 401]);
  expect(tries[0]!.body.detail).toBe(tries[1]!.body.detail);
});

test('health and metrics answer', async () => {
  const client = new Client(house.config.PUBLIC_URL);
  expect((await client.call('GET', '/health/ready')).status).toBe(200);
  expect((await client.call('GET', '/metrics')).text).toContain('goodword_request_seconds');
});

/** Files that may reach the database without a scope, each for the reason given. */
const UNSCOPED: Record<string, string> = {
  'preferences/preferences.repository.ts': 'a signed token gives the scope',
  'feeds/feed-hooks.controller.ts': 'a signed call brings only a key, from which the organization is found',
  'feeds/telling/telling.service.ts': 'a worker asks which sources are to be told anywhere',
  'feeds/running/feed-clock.service.ts': 'a worker asks which feeds are due anywhere',
  'forms/confirmations.repository.ts': 'a signed token gives the scope, and a worker sends whatever is due',
  'forms/forms.repository.ts': 'the address of a form gives the scope',
  'inbound/inbound.repository.ts':
    'a text or receipt brings only a number or a key, from which the organization is found',
  'intake/retention/retention.service.ts': 'a worker goes over every organization in turn',
  'messages/images.service.ts': 'pictures are public to mail readers',
  'permission-states.ts': 'a command over every organization',
  'platform/due.ts': 'a worker asks what is due anywhere',
  'platform/health.controller.ts': 'counts over everything',
  'platform/house-keys.ts': 'keys of the house belong to no organization',
  'platform/jobs.ts': 'a worker claims whatever is due',
  'platform/rate-limit.ts': 'whoever comes too often has no organization',
  'platform/readiness.ts': 'looks whether the database has a schema and takes what is written',
  'platform/sessions.ts': 'a session gives the scope',
  'platform/test-database.ts': 'tests',
  'setup/beginning.repository.ts': 'there is no organization yet',
  'supporters/merged.ts': 'a signed token names a record that may have been brought into another',
  'platform/text-segments.ts': 'a receipt over SMPP brings an id and nothing else',
  'prepare.ts': 'before a start there is nobody',
  'automatic/rounds.service.ts': 'a worker looks for what happened in every organization in turn',
  'segments/segment-sizes.ts': 'a worker counts the segments of every organization in turn',
  'sender/sender.repository.ts': 'a worker looks for the records of every organization',
  'sending/leases.repository.ts': 'a worker takes up whatever another left',
  'sending/outbox.repository.ts': 'a worker hands over whatever is due',
  'team/sign-in-brake.ts': 'whoever guesses has no organization',
  'team/team.repository.ts': 'sign-in finds the organization',
  'team/teammates.repository.ts': 'a signed token gives the scope, and a worker sends whatever is due',
  'unsubscribe/unsubscribe.repository.ts': 'a signed token gives the scope',
};

test('nothing else reaches the database without a scope', () => {
  const files = readdirSync(__dirname, { recursive: true, encoding: 'utf8' }).filter(
    (file) => file.endsWith('.ts') && !file.endsWith('.test.ts') && !file.startsWith('testing'),
  );
  const using = files
    .filter((file) => /\.unscoped\(\)/.test(readFileSync(join(__dirname, file), 'utf8')))
    .map((file) => relative('.', file));
  expect(using.sort()).toEqual(Object.keys(UNSCOPED).sort());
});
