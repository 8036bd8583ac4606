import { expect, test } from 'vitest';
import { told } from './log.ts';

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
