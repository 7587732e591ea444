import type * as Client from '$lib/api/client';

export type Call = { method: string; path: string; body: Record<string, unknown> };
export type Answer = { data?: unknown; error?: unknown };

/** What the interface asked, in order. */
export const calls: Call[] = [];
/** What it will be answered, in order; without an answer the application is not there. */
export const answers: ((call: Call) => Answer | Promise<Answer>)[] = [];

/** The client module with a stand-in for the application behind it. */
export async function standIn(original: () => Promise<typeof Client>) {
  const ask =
    (method: string) =>
    async (path: string, options: { body?: Record<string, unknown> } = {}): Promise<Answer> => {
      const call = { method, path, body: options.body ?? {} };
      calls.push(call);
      const answer = answers.shift();
      if (!answer) throw new TypeError('Failed to fetch');
      return answer(call);
    };
  const api = Object.fromEntries(['GET', 'POST', 'PUT', 'PATCH', 'DELETE'].map((m) => [m, ask(m)]));
  return { ...(await original()), api };
}

export function clear(): void {
  calls.length = 0;
  answers.length = 0;
}
