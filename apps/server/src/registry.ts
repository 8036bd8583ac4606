/**
 * What the capabilities bring of one sort, for the folders below them that work with all of it: `composition/` gathers it and
 * fills it once, before anything runs.
 */
export class Registry<T> {
  private value: T | undefined;

  constructor(private readonly what: string) {}

  fill(value: T): void {
    this.value = value;
  }

  /** @throws Error where nothing was composed: whoever runs a part of the server imports `composition/registries.ts` first */
  get all(): T {
    if (this.value === undefined)
      throw new Error(`The registry of ${this.what} is empty: composition/registries.ts fills it.`);
    return this.value;
  }
}
