import { expect, test } from 'vitest';
import { routes, type Route } from './index.ts';
import { route } from './route.ts';

const of = { method: 'GET', summary: 'Things' } as const;

test('what only a member may do is done in a workspace, and what is not in one names no action: anything else does not compile', () => {
  // @ts-expect-error -- there is no workspace of which one would be a member
  route({ ...of, path: '/things', may: 'edit' });
  // @ts-expect-error -- whoever is signed in need not be a member
  route({ ...of, path: '/w/:workspace/things', may: 'signed in' });
  // @ts-expect-error -- nor is just anyone
  route({ ...of, path: '/w/:workspace/things', may: 'anyone' });
  expect(route({ ...of, path: '/w/:workspace/things', may: 'edit' }).may).toBe('edit');
  expect(route({ ...of, path: '/things', may: 'signed in' }).may).toBe('signed in');
});

test('so it is with all that are declared', () => {
  const all = Object.values(routes).flatMap((group) => Object.values(group) as Route[]);
  expect(all.length).toBeGreaterThan(100);
  for (const { path, may } of all)
    expect([path, path.startsWith('/w/:workspace/')]).toEqual([path, may !== 'signed in' && may !== 'anyone']);
});
