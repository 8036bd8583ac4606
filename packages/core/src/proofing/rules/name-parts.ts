import type { Name } from '../../source/index.ts';
import type { Rule } from '../rule.ts';
import { inNames } from '../names.ts';

const SUFFIX = /^(.*\S)[, ]+(Jr\.?|Sr\.?|II|III|IV)$/;
const PARTICLE =
  /^(.*?\S)\s+((?:van|von|de|del|della|der|den|di|da|du|la|le|ten|ter|zu)(?:\s+(?:van|von|de|der|den|la|le))*)$/;

export const nameParts: Rule = {
  id: 'name-parts',
  severity: 'wrong',
  title: 'Part of a name in the wrong place',
  why: 'A particle or a suffix decides where a name is sorted and how it is shortened.',
  find: ({ record }) =>
    inNames(
      record,
      (name): Name | undefined => {
        if (!name.family || name.literal) return undefined;
        const inFamily = !name.suffix && SUFFIX.exec(name.family);
        if (inFamily) return { ...name, family: inFamily[1]!.replace(/,$/, ''), suffix: inFamily[2]! };
        const inGiven = !name.suffix && name.given && SUFFIX.exec(name.given);
        if (inGiven) return { ...name, given: inGiven[1]!.replace(/,$/, ''), suffix: inGiven[2]! };
        const particle =
          !name['non-dropping-particle'] && !name['dropping-particle'] && name.given && PARTICLE.exec(name.given);
        return particle ? { ...name, given: particle[1]!, 'non-dropping-particle': particle[2]! } : undefined;
      },
      (name) => `“${[name.given, name.family].filter(Boolean).join(' | ')}” has a part in the wrong place`,
      0.92,
    ),
};
