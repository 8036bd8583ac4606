import { expect, test } from 'vitest';
import { Measure, measured, told } from '../log.ts';

test('an error of the database is told without the query, its parameters or the value it stumbled over', () => {
  const cause = Object.assign(new Error('invalid input syntax for type json: "a secret"'), {
    severity: 'ERROR',
    code: '22P02',
    routine: 'json_errsave_error',
    detail: 'Token "secret" is invalid.',
  });
  const error = Object.assign(new Error('Failed query: insert into x values ($1)\nparams: a secret'), {
    query: 'insert into x values ($1)',
    params: ['a secret'],
    cause,
  });
  const log = told(error);
  expect(JSON.stringify(log)).not.toContain('secret');
  expect(log).toMatchObject({ cause: { code: '22P02', message: 'the database refused (json_errsave_error)' } });
  expect(log.stack).toContain('log.test.ts');
});

test('any other error is told in its own words', () => {
  expect(told(new RangeError('no ranks for “title”'))).toMatchObject({
    type: 'RangeError',
    message: 'no ranks for “title”',
  });
  expect(told('nothing of an error')).toMatchObject({ message: 'an error without words' });
});

test('what goes wrong over and over is written so often a minute, and then counted', () => {
  let now = 0;
  const hooks = measured(new Measure(() => now));
  const written: string[] = [];
  const write = (text: string): void =>
    hooks!.logMethod!.call({} as never, [text] as never, ((t: string) => written.push(t)) as never, 50);
  for (let i = 0; i < 1000; i += 1) write('the disk is full');
  expect(written).toHaveLength(200);
  now = 60_000;
  write('the disk is full');
  expect(written.slice(200)).toEqual(['800 more lines of the minute before are left out', 'the disk is full']);
});
