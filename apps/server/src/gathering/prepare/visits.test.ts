import { expect, test } from 'vitest';
import { Unreachable, type Fetched } from '../../fetching/fetch.ts';
import { Visits } from './visits.ts';

let clock = 0;
let asked: string[] = [];
const silent = {
  get: async (address: string): Promise<Fetched> => {
    asked.push(address);
    clock += 10_000;
    throw new Unreachable('did not answer in time', false);
  },
};
const why = (visits: Visits, address: string): Promise<string> =>
  visits.get(address).then(
    () => '',
    (e: Error) => e.message,
  );

test('a host that is silent twice is not asked again in this gathering; others are', async () => {
  asked = [];
  const visits = new Visits(silent, () => clock);
  for (let i = 0; i < 5; i += 1) await why(visits, `http://silent.example/${i}`);
  expect(asked.length).toBe(2);
  expect(await why(visits, 'http://silent.example/6')).toContain('is visited later');
  await why(visits, 'http://other.example/1');
  expect(asked.length).toBe(3);
});

test('sixty silent hosts hold a gathering no longer than its budget', async () => {
  asked = [];
  const visits = new Visits(silent, () => clock);
  const begun = clock;
  for (let i = 0; i < 60; i += 1) await why(visits, `http://host${i}.example/`);
  expect(clock - begun).toBeLessThanOrEqual(110_000);
  expect(asked.length).toBeLessThan(15);
});

test('a page that is refused for good says nothing of its host', async () => {
  const refusing = {
    get: async (): Promise<Fetched> => {
      throw new Unreachable('is no address', true);
    },
  };
  const visits = new Visits(refusing, () => 0);
  for (let i = 0; i < 5; i += 1) expect(await why(visits, 'http://refusing.example/')).toBe('is no address');
});
