/**
 * Keeping a list in its order while one works in it. What one does to a line may give it another place in the answer (by
 * relevance, by what was changed last); it is pinned behind the line it stood behind until something else is asked. The
 * server knows nothing of that: places on screen are translated into places of the answer, and back.
 */

/** A line that stays behind another; behind null it is the first. */
export interface Pin {
  id: string;
  after: string | null;
}

/** A pinned line: its position in the current answer, and the position at which it is shown. */
export interface PlacedPin {
  id: string;
  at: number;
  shown: number;
}

/**
 * @param places places in the answer, of the pinned lines and of those they stand behind
 * @returns in the order they are shown in; a line that has left the answer, or whose neighbour has, is pinned no more
 */
export function placePins(pins: readonly Pin[], places: ReadonlyMap<string, number>): PlacedPin[] {
  const pinned = pins.filter((p) => places.has(p.id));
  const ats = pinned.map((p) => places.get(p.id)!);
  const isPinned = new Set(pinned.map((p) => p.id));
  /** The place of the first neighbour that is not pinned itself, among all that are not; and how many pins lie between. */
  const behind = (pin: Pin): [place: number, depth: number] | undefined => {
    const seen = new Set<string>();
    let { after } = pin;
    for (let depth = 0; ; depth += 1) {
      if (after === null) return [-1, depth];
      const place = places.get(after);
      if (place === undefined || seen.has(after)) return undefined;
      if (!isPinned.has(after)) return [place - ats.filter((at) => at < place).length, depth];
      seen.add(after);
      after = pinned.find((p) => p.id === after)!.after;
    }
  };
  const found = pinned.flatMap((pin) => {
    const to = behind(pin);
    return to ? [{ pin, to }] : [];
  });
  // One that is let go stands among the others again, which alters their places: all are placed anew.
  if (found.length < pins.length)
    return placePins(
      found.map((f) => f.pin),
      places,
    );
  return found
    .sort((a, b) => a.to[0] - b.to[0] || a.to[1] - b.to[1])
    .map(({ pin, to }, i) => ({ id: pin.id, at: places.get(pin.id)!, shown: to[0] + 1 + i }));
}

/** The place in the answer of the line shown at a place. */
export function placeInAnswer(pins: readonly PlacedPin[], shown: number): number {
  const pin = pins.find((p) => p.shown === shown);
  if (pin) return pin.at;
  let at = shown - pins.filter((p) => p.shown < shown).length;
  for (const other of pins.map((p) => p.at).sort((a, b) => a - b)) if (other <= at) at += 1;
  return at;
}

/** The place at which the line of a place in the answer is shown. */
export function placeShown(pins: readonly PlacedPin[], at: number): number {
  const pin = pins.find((p) => p.at === at);
  if (pin) return pin.shown;
  let shown = at - pins.filter((p) => p.at < at).length;
  for (const other of pins) if (other.shown <= shown) shown += 1;
  return shown;
}
