/** The one shape of every error. */
export interface ApiError {
  error: { code: string; message: string; field?: string; current?: unknown };
}
