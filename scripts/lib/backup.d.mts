interface Place {
  url: string;
  data: string;
  bin: string;
}
export function backUp(from: Place, to: string, now?: Date): Promise<{ files: number }>;
export function restore(from: string, to: Place): Promise<{ files: number }>;
