/** Talking to the server: typed requests, and failures as one kind of error. */
import createClient from "openapi-fetch";
import type { paths } from "./schema.gen";
import type { Problem } from "./types";

export const api = createClient<paths>({ baseUrl: "/" });

/** The server answered with a problem document. */
export class Refused extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail);
  }
}

/** The server did not answer at all. */
export class Unreachable extends Error {}

/** The data of an answer, or the error it stands for. */
export async function answered<T>(request: Promise<{ data?: T; error?: unknown }>): Promise<T> {
  let answer;
  try {
    answer = await request;
  } catch {
    throw new Unreachable("The server does not answer");
  }
  if (answer.data !== undefined) return answer.data;
  const problem = answer.error as Partial<Problem> | undefined;
  throw new Refused({
    type: problem?.type ?? "urn:wingboard:unknown",
    title: problem?.title ?? "That did not work",
    status: problem?.status ?? 500,
    detail: problem?.detail ?? "The server could not answer; the design is unchanged",
    errors: problem?.errors ?? [],
    head: problem?.head ?? null,
    what: problem?.what ?? null,
  });
}
