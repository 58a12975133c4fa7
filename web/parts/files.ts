/** Hands a file to the maker. */
export function handOver(bytes: Uint8Array | string, type: string, fileName: string): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(new Blob([bytes as Uint8Array<ArrayBuffer>], { type }));
  link.download = fileName;
  link.click();
  URL.revokeObjectURL(link.href);
}

export const fileName = (name: string, ending: string) => `${name.replace(/[^\p{L}\p{N}]+/gu, '-')}-${ending}`;
