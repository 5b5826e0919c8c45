export function download(name: string, bytes: Uint8Array): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(new Blob([bytes as BlobPart]));
  link.download = name;
  link.click();
}
