declare module 'heic-decode' {
  /** Dots as red, green, blue and opacity, a byte each. @throws Error of what is none */
  export default function decode(of: {
    buffer: Uint8Array;
  }): Promise<{ width: number; height: number; data: Uint8ClampedArray }>;
}
