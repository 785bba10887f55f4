const megabytes = (bytes: number) => `${Math.round((bytes / 1024 / 1024) * 10) / 10} MB`;

/** The text of a file that was chosen or dropped, or why it is not read; a file over the limit is not touched at all. */
export async function readTextFile(file: File, limit: number): Promise<{ text: string } | { refusal: string }> {
  if (file.size > limit) {
    return {
      refusal: `${file.name} has ${megabytes(file.size)}; a file may have at most ${megabytes(limit)}. Nothing was read.`,
    };
  }
  const bytes = new Uint8Array(await file.arrayBuffer());
  if (bytes.subarray(0, 4096).includes(0)) {
    return { refusal: `${file.name} is not a text file. Save it as CSV or TSV and open that.` };
  }
  try {
    return { text: new TextDecoder('utf-8', { fatal: true }).decode(bytes) };
  } catch {
    // Older spreadsheets write CSV in the Western code page; every byte has a meaning there.
    return { text: new TextDecoder('windows-1252').decode(bytes) };
  }
}
