/** Sending files: how far it is, and what is said when it fails. */
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { withoutPage } from '../testing.ts';
import { sending, upload } from './upload.ts';

/** A request as the browser has it, whose course the test decides. */
class Request {
  static last: Request;
  upload: { onprogress?: (e: { loaded: number; total: number }) => void } = {};
  onloadend?: () => void;
  status = 0;
  responseText = '';
  headers: Record<string, string> = {};
  sent?: FormData;
  constructor() {
    Request.last = this;
  }
  open(): void {}
  setRequestHeader(name: string, value: string): void {
    this.headers[name] = value;
  }
  send(form: FormData): void {
    this.sent = form;
  }
  end(status: number, responseText: string): void {
    Object.assign(this, { status, responseText });
    this.onloadend?.();
  }
}

beforeEach(async () => {
  await withoutPage(() => ({}));
  vi.stubGlobal('XMLHttpRequest', Request);
});
afterEach(() => vi.unstubAllGlobals());

const NOWHERE = { collections: [], tags: [], reading: null };
const files = [new File(['TY  - BOOK'], 'a.ris'), new File(['%PDF'], 'b.pdf')];

test('every file goes under its name, after where they go, with the guard against forgery', async () => {
  const started = upload(files, { ...NOWHERE, collections: ['c1'] });
  expect([...Request.last.sent!].map(([name, part]) => [name, part instanceof File ? part.name : part])).toEqual([
    ['destination', '{"collections":["c1"],"tags":[],"reading":null}'],
    ['file', 'a.ris'],
    ['file', 'b.pdf'],
  ]);
  expect(Object.keys(Request.last.headers)).toContain('x-csrf-token');
  Request.last.end(200, JSON.stringify({ jobId: 'j', importId: 'i' }));
  expect(await started).toEqual({ jobId: 'j', importId: 'i' });
});

test('how far it is can be seen until it has ended', async () => {
  const started = upload(files, NOWHERE);
  expect(sending.value).toEqual({ files: 2, share: 0 });
  Request.last.upload.onprogress!({ loaded: 30, total: 120 });
  expect(sending.value).toEqual({ files: 2, share: 0.25 });
  // The length may not be known.
  Request.last.upload.onprogress!({ loaded: 30, total: 0 });
  expect(sending.value!.share).toBe(0);
  Request.last.end(200, '{}');
  await started;
  expect(sending.value).toBeNull();
});

describe('a sending that fails says so, and shows no progress any more', () => {
  test.each([
    [
      'in the server’s words',
      413,
      '{"detail":"A file is larger than 500 MB; nothing was kept."}',
      /larger than 500 MB/,
    ],
    ['when what stands before the server answers', 502, '<html>Bad gateway</html>', /Nothing was added; try again/],
    ['when nobody answers', 0, '', /Nothing was added; try again/],
    ['when the answer is cut off', 200, '{"jobId":', /Nothing was added; try again/],
  ])('%s', async (_, status, text, says) => {
    const started = upload(files, NOWHERE);
    Request.last.end(status, text);
    await expect(started).rejects.toThrow(says);
    expect(sending.value).toBeNull();
  });
});
