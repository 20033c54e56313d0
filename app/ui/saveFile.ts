/** Hands a file made here to the browser, to be saved. */
export function saveFile(name: string, text: string, type: string): void {
  const address = URL.createObjectURL(new Blob(['\uFEFF', text], { type: `${type};charset=utf-8` }));
  const link = document.createElement('a');
  link.href = address;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(address), 1000);
}
