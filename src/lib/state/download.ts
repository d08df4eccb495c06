import { formatCsv } from '$core/exchange';
import { inFiles } from '$core/wording';

/** Hands rows to the browser as a CSV file, the same whoever takes it out. */
export const downloadCsv = (fileName: string, rows: () => Parameters<typeof formatCsv>[0]): void =>
  downloadText(fileName, formatCsv(inFiles(rows)), 'text/csv');

/** Hands a text to the browser as a file. */
export function downloadText(fileName: string, text: string, type: string): void {
  downloadBlob(fileName, new Blob([text], { type }));
}

export function downloadBlob(fileName: string, blob: Blob): void {
  const url = URL.createObjectURL(blob);
  const link = document.createElement('a');
  link.href = url;
  link.download = fileName;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}
