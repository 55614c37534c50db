/** The files of a drop, those in dropped folders too; hidden ones are passed by. */
export async function droppedFiles(data: DataTransfer): Promise<File[]> {
  const entries = [...data.items].map((item) => item.webkitGetAsEntry?.() ?? null);
  // Some browsers give no entries; then there are plain files only.
  if (entries.every((entry) => entry === null)) return [...data.files];
  const files: File[] = [];
  for (const entry of entries) if (entry) await collect(entry, files);
  return files;
}

async function collect(entry: FileSystemEntry, into: File[]): Promise<void> {
  if (entry.name.startsWith('.')) return;
  if (entry.isFile) {
    into.push(
      await new Promise<File>((resolve, reject) => (entry as FileSystemFileEntry).file(resolve, reject)),
    );
    return;
  }
  const reader = (entry as FileSystemDirectoryEntry).createReader();
  for (;;) {
    // A folder is read in portions until an empty one comes.
    const portion = await new Promise<FileSystemEntry[]>((resolve, reject) =>
      reader.readEntries(resolve, reject),
    );
    if (portion.length === 0) return;
    for (const child of portion) await collect(child, into);
  }
}
