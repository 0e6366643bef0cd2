/** That photos of a job are gone. */
export const photosGoneWords = (count: number): string =>
  count === 1
    ? 'A photo of this job is missing, or is not as it was stored.'
    : `${count} photos of this job are missing, or are not as they were stored.`;
