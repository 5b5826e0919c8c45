/** A recorded load of the real app, as far as its requests and milestones go. Times in ms from its first request. */
export interface Recording {
  title: string;
  requests: RecordedRequest[];
  /** null where the recording doesn't say. */
  contentLoaded: number | null;
  load: number | null;
  /** Requests that could not be used, in words. */
  leftOut: string[];
}

export interface RecordedRequest {
  /** Whole address as recorded; of a query of GraphQL with its name behind it (`#Tides`). */
  address: string;
  /** When the browser decided to fetch it, sent it, had the first byte and the last one. */
  discovered: number;
  sent: number;
  firstByte: number;
  end: number;
  /** Bytes that travelled; 0 from the cache. */
  bytes: number;
}
