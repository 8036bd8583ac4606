/** Sending files: how far it is, and what is said when it fails. */
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { withoutPage } from '../testing.ts';
import { sending, sharesOf, upload, type Sent } from './upload.ts';

/** A request as the browser has it, whose course the test decides. */
class Request {
  static all: Request[] = [];
  upload: { onprogress?: (e: { loaded: number; total: number }) => void } = {};
  onloadend?: () => void;
  status = 0;
  responseText = '';
  headers: Record<string, string> = {};
  sent?: FormData;
  constructor() {
    Request.all.push(this);
  }
  open(): void {}
  setRequestHeader(name: string, value: string): void {
    this.headers[name] = value;
  }
  send(form: FormData): void {
    this.sent = form;
  }
  abort(): void {
    this.end(0, '');
  }
  end(status: number, responseText: string): void {
    Object.assign(this, { status, responseText });
    this.onloadend?.();
  }
}

/** What the gathering was begun with. */
let begun: { uploads: string[]; destination: object } | undefined;
beforeEach(async () => {
  begun = undefined;
  Request.all = [];
  await withoutPage(({ path, body }) => {
    if (path === '/uploads/gathering') begun = body as typeof begun;
    return { jobId: 'j', importId: 'i' };
  });
  vi.stubGlobal('XMLHttpRequest', Request);
});
afterEach(() => vi.unstubAllGlobals());

const NOWHERE = { collections: [], tags: [], reading: null };
const files = [new File(['TY  - BOOK'], 'a.ris'), new File(['%PDF'], 'b.pdf')];
const sent = (...ids: string[]): string => JSON.stringify({ uploads: ids });
const at = (nth: number): Promise<Request> =>
  vi.waitFor(() => Request.all[nth] ?? expect.fail('nothing is sent'), { interval: 1 });

test('every file goes under its name, with the guard against forgery; then all of them are gathered', async () => {
  const started = upload(files, { ...NOWHERE, collections: ['c1'] });
  const request = await at(0);
  expect([...request.sent!].map(([name, part]) => [name, part instanceof File ? part.name : part])).toEqual([
    ['file', 'a.ris'],
    ['file', 'b.pdf'],
  ]);
  expect(Object.keys(request.headers)).toContain('x-csrf-token');
  request.end(200, sent('u1', 'u2'));
  expect(await started).toEqual({ jobId: 'j', importId: 'i' });
  expect(begun).toEqual({ uploads: ['u1', 'u2'], destination: { ...NOWHERE, collections: ['c1'] } });
});

test('a drop of very many files goes in shares, in its order, none larger than it must be', () => {
  const of = (sizes: number[]): Sent[] => sizes.map((size, i) => ({ file: { size } as File, path: `${i}` }));
  const shares = sharesOf(of([10, 60, 40, 500, 1, 1, 1, 1]), { files: 3, bytes: 100 });
  expect(shares.map((s) => s.map(({ path }) => Number(path)))).toEqual([[0, 1], [2], [3], [4, 5, 6], [7]]);
  const many = sharesOf(of(Array<number>(5000).fill(0)));
  expect([many.length, many.flat().map(({ path }) => Number(path))]).toEqual([25, [...Array(5000).keys()]]);
});

test('how far it is can be seen until it has ended', async () => {
  const started = upload(files, NOWHERE);
  expect(sending.value).toMatchObject({ files: 2, share: 0 });
  const request = await at(0);
  request.upload.onprogress!({ loaded: 30, total: 120 });
  expect(sending.value).toMatchObject({ files: 2, share: 0.25 });
  // The length may not be known.
  request.upload.onprogress!({ loaded: 30, total: 0 });
  expect(sending.value!.share).toBe(0);
  request.end(200, sent('u1', 'u2'));
  await started;
  expect(sending.value).toBeNull();
});

test('a share that nobody answers is sent again, and what had arrived is not', async () => {
  const waits: number[] = [];
  const many = Array.from({ length: 201 }, (_, i) => new File(['x'], `${i}.ris`));
  const started = upload(many, NOWHERE, new Map(), async (ms) => void waits.push(ms));
  (await at(0)).end(200, sent('first'));
  (await at(1)).end(503, '{"detail":"The database does not answer just now."}');
  (await at(2)).end(0, '');
  (await at(3)).end(200, sent('last'));
  await started;
  expect(begun!.uploads).toEqual(['first', 'last']);
  expect(Request.all.map((r) => [...r.sent!].length)).toEqual([200, 1, 1, 1]);
  expect(waits).toEqual([1000, 4000]);
});

test('stopped, it says that nothing was added, and nothing is', async () => {
  const started = upload(files, NOWHERE);
  await at(0);
  sending.value!.stop();
  await expect(started).rejects.toThrow('Sending was stopped. Nothing was added.');
  expect([begun, sending.value]).toEqual([undefined, null]);
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
    ['when the answer is cut off', 200, '{"uploads":', /Nothing was added; try again/],
  ])('%s', async (_, status, text, says) => {
    const started = upload(files, NOWHERE, new Map(), async () => {});
    const ends = expect(started).rejects.toThrow(says);
    for (let nth = 0; nth < (status === 413 ? 1 : 3); nth += 1) (await at(nth)).end(status, text);
    await ends;
    expect([sending.value, begun]).toEqual([null, undefined]);
  });
});
