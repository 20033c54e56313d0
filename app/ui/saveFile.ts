/** Hands a file made here to the browser, to be saved. */
export function saveFile(name: string, content: string | Blob, type: string): void {
  const file = typeof content === 'string' ? new Blob(['\uFEFF', content], { type: `${type};charset=utf-8` }) : content;
  const address = URL.createObjectURL(file);
  const link = document.createElement('a');
  link.href = address;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(address), 1000);
}
