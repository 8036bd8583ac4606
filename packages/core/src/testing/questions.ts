import fc from 'fast-check';
import type { Node } from '../query/index.ts';

/** Questions of any shape over such leaves, three deep at the most. */
export const questionsOf = (leaf: fc.Arbitrary<Node>): fc.Arbitrary<Node> =>
  fc.letrec<{ node: Node }>((tie) => ({
    node: fc.oneof(
      { maxDepth: 3, withCrossShrink: true },
      leaf,
      fc.record({ is: fc.constant('not' as const), part: tie('node') }),
      fc.record({
        is: fc.constantFrom('and' as const, 'or' as const),
        parts: fc.array(tie('node'), { minLength: 2, maxLength: 3 }),
      }),
    ),
  })).node;
