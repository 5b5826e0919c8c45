/** What a thread says once it holds the lock of its name. */
const ALIVE = 'alive';

/** In a thread: holds the lock that is called as the thread is, until the thread ends, however it ends. */
export function showAlive(): void {
  // Only where the page is from this machine or encrypted (Secure Contexts); elsewhere only errors tell.
  if (!('locks' in navigator)) return;
  void navigator.locks.request(self.name, () => {
    self.postMessage(ALIVE);
    return new Promise(() => {});
  });
}

/**
 * Calls `then` when a thread has ended, though no event says so: when the browser took its memory, or it closed itself.
 * Its lock is free then (Web Locks: locks of an agent that ends are released).
 */
export function whenEnded(worker: Worker, name: string, then: () => void): void {
  worker.addEventListener('message', ({ data }) => {
    if (data === ALIVE) void navigator.locks.request(name, then);
  });
}
