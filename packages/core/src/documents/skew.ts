/** How far a page was laid askew, from its picture: lines of text make rows of ink, which are sharpest where they lie level. */

/** In degrees: what lies further off was turned on purpose. */
const MOST = 12;
const COARSE = 0.5;
const FINE = 0.1;
/** Level by so much sharper than as it lies, or it stays: specks are by some (by trial). */
const LEAST_GAIN = 1.15;

/**
 * By the method of projection profiles (Postl 1986): the ink of each row is summed up along lines at a slope; where lines of text
 * lie along it, the sums of neighbouring rows differ most.
 * @param grey a byte a dot, row by row; small pictures do, about a thousand dots wide
 * @returns in degrees, clockwise; 0 where nothing on the page says
 */
export function skewOf(grey: Uint8Array, width: number, height: number): number {
  const ink = inkOf(grey, width, height);
  if (ink.length < 200) return 0;
  const sharpness = (degrees: number): number => {
    const slope = Math.tan((degrees * Math.PI) / 180);
    const rows = new Float64Array(height + 2 * Math.ceil(width * Math.tan((MOST * Math.PI) / 180)) + 2);
    const shift = rows.length / 2 - height / 2;
    for (const at of ink) {
      const [x, y] = [at % width, Math.floor(at / width)];
      rows[Math.round(y - (x - width / 2) * slope + shift)]! += 1;
    }
    let sum = 0;
    for (let i = 1; i < rows.length; i += 1) sum += (rows[i]! - rows[i - 1]!) ** 2;
    return sum;
  };
  const best = (from: number, to: number, step: number): number => {
    let [at, most] = [0, -1];
    for (let n = 0; from + n * step <= to + 1e-9; n += 1) {
      const s = sharpness(from + n * step);
      if (s > most) [at, most] = [from + n * step, s];
    }
    return at;
  };
  const coarse = best(-MOST, MOST, COARSE);
  // At the edge nothing is sharper than elsewhere: a picture, not a text.
  if (Math.abs(coarse) > MOST - COARSE) return 0;
  const fine = best(coarse - COARSE, coarse + COARSE, FINE);
  return sharpness(fine) > sharpness(0) * LEAST_GAIN ? Math.round(fine * 10) / 10 : 0;
}

/** The dark dots, each by its place; by the threshold that parts dark and light best (Otsu 1979). */
function inkOf(grey: Uint8Array, width: number, height: number): Uint32Array {
  const counts = new Float64Array(256);
  for (let i = 0; i < width * height; i += 1) counts[grey[i]!]! += 1;
  const total = width * height;
  let all = 0;
  counts.forEach((n, value) => (all += n * value));
  let [below, weight, threshold, most] = [0, 0, 127, -1];
  for (let t = 0; t < 256; t += 1) {
    weight += counts[t]!;
    below += t * counts[t]!;
    if (!weight || weight === total) continue;
    const between = weight * (total - weight) * (below / weight - (all - below) / (total - weight)) ** 2;
    if (between > most) [threshold, most] = [t, between];
  }
  const out: number[] = [];
  // The edge of the picture often shows the lid of the scanner.
  const [mx, my] = [Math.floor(width * 0.03), Math.floor(height * 0.03)];
  for (let y = my; y < height - my; y += 1)
    for (let x = mx; x < width - mx; x += 1) if (grey[y * width + x]! <= threshold) out.push(y * width + x);
  // More than half is no ink: a dark photograph.
  return Uint32Array.from(out.length > total / 2 ? [] : out);
}
