/** Hands a text, or what is a file already, to the person as a file. */
export function download(name: string, what: string | Blob, type = 'application/json'): void {
  const url = URL.createObjectURL(typeof what === 'string' ? new Blob([what], { type }) : what);
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}

/** A name that any file system takes: letters and digits kept, the rest joined by hyphens. */
export function fileName(name: string, ending: string): string {
  const plain = name
    .normalize('NFKD')
    .replace(/[^\p{L}\p{N}]+/gu, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, 80);
  return `${plain === '' ? 'job' : plain}${ending}`;
}
