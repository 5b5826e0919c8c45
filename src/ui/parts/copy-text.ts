import { toast } from './toast.ts';

/** Puts a text where it can be pasted from, and tells so; `instead` is done where the browser doesn't let the page do that. */
export async function copyText(text: string, told: string, instead?: () => void): Promise<void> {
  try {
    await navigator.clipboard.writeText(text);
    toast(told);
  } catch {
    if (instead) instead();
    else toast.error('The browser doesn’t let this page copy.');
  }
}
