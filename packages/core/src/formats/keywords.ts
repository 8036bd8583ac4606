/** Keywords in one line, parted by semicolons, or by commas where there is no semicolon (common practice). */
export function splitKeywords(text: string): string[] {
  return text.split(text.includes(';') ? /\s*;\s*/ : /\s*,\s*/).filter(Boolean);
}
