/** Hands a file to the browser, which saves it or asks where. */
export function saveFile(file: Blob, name: string): void {
  const url = URL.createObjectURL(file);
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  // The browser reads it after the click has been handled.
  setTimeout(() => {
    URL.revokeObjectURL(url);
  }, 60_000);
}
