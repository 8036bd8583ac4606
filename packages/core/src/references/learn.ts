/**
 * What a person corrects in one reference of a list is right for those that are made the same way: what was learnt is the
 * stretch's place among its neighbours, and the signs between them.
 */
import type { Span, SpanField } from './spans.ts';

export interface Correction {
  start: number;
  end: number;
  field: SpanField | null;
}

/** A place in a reference: between which fields, behind and before which signs, and what stood there. */
interface Learnt {
  after: SpanField | null;
  before: SpanField | null;
  /** Text between the stretch and its neighbours, as it is printed. */
  lead: string;
  trail: string;
  was: SpanField[];
  /** Whether it has letters: a year is no publisher. */
  wordy: boolean;
  field: SpanField | null;
}

/** Longer than any sign between two parts: what stands there is words of this reference alone. */
const LONGEST_SIGN = 12;
const hasLetters = (text: string): boolean => /\p{L}{2}/u.test(text);

const inOrder = (spans: readonly Span[]): Span[] => spans.toSorted((a, b) => a.start - b.start);

/** Nothing where the stretch is too far from its neighbours to say how such references are made. */
export function learn(text: string, spans: readonly Span[], { start, end, field }: Correction): Learnt | undefined {
  const around = inOrder(spans);
  const inside = around.filter((s) => s.start < end && s.end > start);
  const left = around.filter((s) => s.end <= start).at(-1);
  const right = around.find((s) => s.start >= end);
  const lead = text.slice(left?.end ?? 0, start);
  const trail = text.slice(end, right?.start ?? text.length);
  if (lead.length > LONGEST_SIGN || trail.length > LONGEST_SIGN) return undefined;
  return {
    after: left?.field ?? null,
    before: right?.field ?? null,
    lead,
    trail,
    was: inside.map((s) => s.field),
    wordy: hasLetters(text.slice(start, end)),
    field,
  };
}

/** The same correction in another reference, where it has that place; the first, where it has several. */
export function applyLearnt(learnt: Learnt, text: string, spans: readonly Span[]): Correction | undefined {
  const around = inOrder(spans);
  const { after, before, lead, trail, was, wordy, field } = learnt;
  for (let i = after === null ? -1 : 0; i < (after === null ? 0 : around.length); i += 1) {
    if (after !== null && around[i]!.field !== after) continue;
    const inside = around.slice(i + 1, i + 1 + was.length);
    const next = around[i + 1 + was.length];
    if (inside.map((s) => s.field).join() !== was.join() || (next?.field ?? null) !== before) continue;
    const from = around[i]?.end ?? 0;
    const to = next?.start ?? text.length;
    const between = text.slice(from, to);
    if (!between.startsWith(lead) || !between.endsWith(trail)) continue;
    const [start, end] = [from + lead.length, to - trail.length];
    const words = text.slice(start, Math.max(start, end));
    if (words.trim() && hasLetters(words) === wordy) return { start, end, field };
  }
  return undefined;
}
