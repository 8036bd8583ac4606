/**
 * How a stand-in behaves: well, slow, failing, asking to wait, or answering garbage. Set by `POST /moods/NAME` with a body
 * such as `{"mood":"slow","ms":3000}`, so that one can see what a dead catalogue does.
 */
export interface Mood {
  mood: 'well' | 'slow' | 'fails' | 'busy' | 'garbage' | 'silent';
  ms?: number;
}

const moods = new Map<string, Mood>();
export const moodOf = (name: string): Mood => moods.get(name) ?? { mood: 'well' };
export const setMood = (name: string, mood: Mood): void => void moods.set(name, mood);
