'use client';

import { useState } from 'react';
import type { FieldValues, Path, UseFormSetError } from 'react-hook-form';
import { call, type Problem } from '../api';

/** Sends a form to the server and puts what it says back at the fields. Nothing typed is lost on a refusal. */
export function useSave<Form extends FieldValues>(
  setError: UseFormSetError<Form>,
  /** Where a form shows what is wrong with a field; null where it has none of that name: what stands nowhere is never put right. */
  pathOf: (field: string) => string | null = (field) => field,
) {
  const [problem, setProblem] = useState<Problem | null>(null);
  const [busy, setBusy] = useState(false);
  const save = async <T>(
    method: 'POST' | 'PUT' | 'DELETE',
    path: string,
    body: unknown,
  ): Promise<T | null> => {
    setBusy(true);
    setProblem(null);
    const answer = await call<T>(method, path, body);
    setBusy(false);
    if (answer.ok) return answer.value;
    setProblem(answer.problem);
    for (const [field, message] of Object.entries(answer.problem.fields ?? {})) {
      const path = pathOf(field);
      if (path !== null) setError(path as Path<Form>, { message });
    }
    return null;
  };
  return { save, problem, busy, setProblem };
}
