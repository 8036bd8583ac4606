/** How the plain text is set, as each person likes it. */
import { useLocalStorage } from '@vueuse/core';

export const FACES = {
  legible: { name: 'Atkinson Hyperlegible', family: "'Atkinson Hyperlegible', sans-serif" },
  serif: { name: 'Source Serif', family: 'var(--font-serif)' },
  sans: { name: 'Source Sans', family: 'var(--font-sans)' },
  mono: { name: 'Plex Mono', family: 'var(--font-mono)' },
} as const;
/** Ink stays dark on each: contrast above 7:1. */
export const TINTS = {
  white: '#ffffff',
  cream: '#fbf3df',
  rose: '#fbe9e4',
  blue: '#e6eff6',
  green: '#e9f2e6',
} as const;

export interface Setting {
  face: keyof typeof FACES;
  /** In pixels. */
  size: number;
  /** Of a line, as a multiple of its size. */
  leading: number;
  /** Between letters, in hundredths of the size. */
  spacing: number;
  /** Of a line, in characters. */
  width: number;
  tint: keyof typeof TINTS;
  /** A band at the line one is at. */
  guide: boolean;
  /** One paragraph at a time. */
  single: boolean;
}

export const useSetting = () =>
  useLocalStorage<Setting>(
    'plain reading',
    { face: 'legible', size: 19, leading: 1.6, spacing: 0, width: 64, tint: 'cream', guide: false, single: false },
    { mergeDefaults: true },
  );
