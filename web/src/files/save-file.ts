/** Hands a file to the browser to be saved. */
export function saveFile(name: string, content: BlobPart, type: string): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(new Blob([content], { type }));
  link.download = name.replace(/[^\p{L}\p{N} .()-]/gu, '_');
  link.click();
  URL.revokeObjectURL(link.href);
}
