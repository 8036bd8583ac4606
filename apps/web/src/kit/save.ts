/** Gives the browser something to keep as a file. */
export function save(name: string, content: Blob | string, type = ''): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(typeof content === 'string' ? new Blob([content], { type }) : content);
  link.download = name;
  link.click();
  URL.revokeObjectURL(link.href);
}
