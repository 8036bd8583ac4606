/** The stand-in for a registry of DOIs, spoken to as the real ones are: content negotiation (DOI Handbook). */
import { expect, test } from 'vitest';
import { resolveDoi } from './registry.ts';

const CSL = 'application/vnd.citationstyles.csl+json';

test('asked for CSL-JSON it gives the record, in whatever case the DOI is written', () => {
  const { status, type, body } = resolveDoi('10.5555/WITHY.2026.0001', `${CSL};q=1, text/html;q=0.5`);
  expect([status, type]).toEqual([200, CSL]);
  expect(JSON.parse(body)).toMatchObject({ title: 'Reopening Withy Sluice: first results', volume: '56' });
});

test('asked for anything else it gives a short page, and of a DOI nobody registered it says so', () => {
  expect(resolveDoi('10.5555/withy.2026.0001', 'text/html')).toMatchObject({
    status: 200,
    type: 'text/plain',
    body: 'Reopening Withy Sluice: first results\n',
  });
  expect(resolveDoi('10.5555/none', CSL)).toMatchObject({ status: 404, body: 'DOI not found\n' });
});
