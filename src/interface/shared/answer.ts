export interface Refusal {
  code: string;
  message: string;
  field?: string;
  data?: Record<string, unknown>;
}

export type Answer<R> = { ok: true; result: R } | { ok: false; refused: Refusal };
