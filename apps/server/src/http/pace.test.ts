/** How long a body may take: by a clock the test turns, and a connection whose bytes it counts. */
import { EventEmitter } from 'node:events';
import type { FastifyRequest } from 'fastify';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { PACE, watchPace } from './pace.ts';

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

/** A request of this type, and whether its connection was ended. */
function coming(type: string): { raw: Raw; ended: () => boolean } {
  const socket = { bytesRead: 0, end: vi.fn(), destroySoon: vi.fn() };
  const raw = Object.assign(new EventEmitter(), {
    headers: { 'content-type': type, 'content-length': '9000000' },
    complete: false,
    destroyed: false,
    readableLength: 0,
    isPaused: () => false,
    socket,
  });
  watchPace({ raw } as unknown as FastifyRequest, PACE);
  return { raw, ended: () => socket.end.mock.calls.length > 0 };
}
type Raw = EventEmitter & { complete: boolean; readableLength: number; socket: { bytesRead: number } };

test('JSON has a minute', () => {
  const { raw, ended } = coming('application/json');
  for (let s = 0; s < 59; s += 1) {
    raw.socket.bytesRead += 100_000;
    vi.advanceTimersByTime(1000);
  }
  expect(ended()).toBe(false);
  vi.advanceTimersByTime(1000);
  expect(ended()).toBe(true);
});

test('files may take hours while they come, and are given up when they come by the byte', () => {
  const { raw, ended } = coming('multipart/form-data; boundary=B');
  for (let s = 0; s < 7200; s += 1) {
    raw.socket.bytesRead += 2000;
    vi.advanceTimersByTime(1000);
  }
  expect(ended()).toBe(false);
  for (let s = 0; s < 40; s += 1) {
    raw.socket.bytesRead += 10;
    vi.advanceTimersByTime(1000);
  }
  expect(ended()).toBe(true);
});

test('what has come and is not read yet, since the disk is slow, is waited for', () => {
  const { raw, ended } = coming('multipart/form-data; boundary=B');
  raw.readableLength = 65_536;
  vi.advanceTimersByTime(300_000);
  expect(ended()).toBe(false);
});

test('once a body has come to its end, nothing waits for it any more', () => {
  const { raw, ended } = coming('application/json');
  raw.emit('end');
  expect(vi.getTimerCount()).toBe(0);
  vi.advanceTimersByTime(300_000);
  expect(ended()).toBe(false);
});

test('a body that is there is not looked at any more', () => {
  const { raw, ended } = coming('application/json');
  raw.complete = true;
  vi.advanceTimersByTime(300_000);
  expect([ended(), vi.getTimerCount()]).toEqual([false, 0]);
});
