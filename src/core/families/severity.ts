/**
 * How much a fault adds at a severity: from `least`, just begun, to `most`, severe, evenly on a scale of logarithms.
 * Nothing at no severity.
 */
export const grown =
  (least: number, most: number) =>
  (severity: number): number =>
    severity === 0 ? 0 : least * (most / least) ** severity;

/** What a fault leaves of something, as a part of it: from `mild` to `severe`, in the same way. All of it at no severity. */
export const left =
  (mild: number, severe: number) =>
  (severity: number): number =>
    severity === 0 ? 1 : mild * (severe / mild) ** severity;

/** Sonic conductance of a passage between the vacuum side and the working side, m³/(s·Pa). Handbook-models 8.1, 8.2. */
export const passage = grown(1e-10, 1e-8);
