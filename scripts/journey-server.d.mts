export interface JourneyServer {
  readonly address: string;
  readonly ready: Promise<boolean>;
  stop(): Promise<void>;
}
export function startJourneyServer(of: {
  readonly build: 'development' | 'production';
  readonly database: string;
  /** The folder of its files. */
  readonly files: string;
  /** Local time, "2026-11-24T10:40". */
  readonly now?: string;
}): Promise<JourneyServer>;
