/** Saves what was made here. */
export function saveFile(file: Blob, name: string): void {
  const address = URL.createObjectURL(file);
  follow(address, name.replace(/[\\/:*?"<>|]/g, ' '));
  setTimeout(() => URL.revokeObjectURL(address), 30_000);
}

/** Saves what the server sends from an address, by the name that it gives. */
export function saveFrom(address: string): void {
  follow(address, '');
}

function follow(address: string, name: string): void {
  const link = document.createElement('a');
  link.href = address;
  link.download = name;
  link.click();
}
