/** What one reading may take. */
export interface ReadLimits {
  /** So long without a new file or step, in ms, and the reading is ended. */
  idleMs: number;
  /** Memory of its process, in MB. */
  memoryMB: number;
  /** The largest file that is read, in bytes. */
  fileBytes: number;
}

const setting = (name: string, otherwise: number): number => {
  const given = Number(process.env[name]);
  return given > 0 ? given : otherwise;
};

/** The limits as the environment sets them: `YOKELINE_READ_IDLE_S`, `YOKELINE_READ_MEMORY_MB`, `YOKELINE_READ_FILE_MB`. */
export function readLimits(): ReadLimits {
  return {
    idleMs: setting('YOKELINE_READ_IDLE_S', 15) * 1000,
    memoryMB: setting('YOKELINE_READ_MEMORY_MB', 8192),
    fileBytes: setting('YOKELINE_READ_FILE_MB', 32) * 1_000_000,
  };
}
