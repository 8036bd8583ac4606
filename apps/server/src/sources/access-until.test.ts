/** Licences that end: narrowed by, and told before they do. */
import { afterAll, beforeAll, expect, test } from 'vitest';
import type { NarrowReply } from '@pandecta/contract';
import { startPost, type Post } from '../testing/post.ts';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';
import { remindOfAccess } from './access-until.ts';

let post: Post;
let server: TestServer;
let me: Person;
beforeAll(async () => {
  post = await startPost();
  server = await startTestServer({ smtp: post.smtp });
  me = await server.person('contributor');
});
afterAll(async () => {
  await server.close();
  await post.close();
});

const add = (title: string, until: number[]): Promise<unknown> =>
  me.at('POST', '/sources', { record: { type: 'report', title, 'access-until': { 'date-parts': [until] } } });

test('whoever brought it in is written to once, two weeks before, and again where the day was put off', async () => {
  await add('Gauge data', [2027, 3, 20]);
  await add('Tide tables', [2027, 3]);
  await add('Long lent', [2027, 9, 1]);
  const on = (day: string): Promise<void> => remindOfAccess(server.app.services, Date.parse(`${day}T03:17:00Z`));
  await on('2027-03-05');
  expect(post.letters).toHaveLength(0);
  await on('2027-03-06');
  await on('2027-03-07');
  expect(post.letters).toHaveLength(1);
  expect(post.letters[0]).toContain('Subject: Access to a document ends');
  expect(post.letters[0]).toContain('- Gauge data: until 20 Mar 2027');
  await on('2027-03-18');
  expect(post.letters[1]).toContain('- Tide tables: until Mar 2027');
  await server.settle();
  const { rows } = await me.ask('"Gauge data"');
  await me.at('PATCH', `/sources/${rows[0]!.id}`, { fields: { 'access-until': { 'date-parts': [[2027, 8, 1]] } } });
  await on('2027-07-30');
  expect(post.letters[2]).toContain('- Gauge data: until 1 Aug 2027');
});

test('sources may be narrowed by the month access ends in', async () => {
  const { facets } = await me.at<NarrowReply>('GET', '/narrow');
  expect(
    facets
      .find((f) => f.type === 'until')
      ?.values.map((v) => [v.name, v.count])
      .sort(),
  ).toEqual([
    ['August 2027', 1],
    ['March 2027', 1],
    ['September 2027', 1],
  ]);
});
