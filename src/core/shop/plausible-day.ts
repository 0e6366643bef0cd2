/** A shop writes down no day outside these years. */
const FIRST = 1950;
const LAST = 2099;

/** What is wrong with a day that is entered. */
export interface WrongDay {
  readonly path: string[];
  readonly message: string;
}

/**
 * Days that cannot be meant, among some that are entered. What was kept before is read whatever it says.
 *
 * @param days by the name of the field: ISO dates, null where none was given
 * @param titles what each field is called
 */
export function wrongDays<Field extends string>(
  days: Readonly<Partial<Record<NoInfer<Field>, unknown>>>,
  titles: Readonly<Record<Field, string>>,
): WrongDay[] {
  return (Object.keys(titles) as Field[]).flatMap((field) => {
    const day = days[field];
    const year = typeof day === 'string' ? Number(day.slice(0, 4)) : FIRST;
    return year >= FIRST && year <= LAST
      ? []
      : [
          {
            path: [field],
            message: `${titles[field]}: the year ${year} is not meant. Give one from ${FIRST} to ${LAST}.`,
          },
        ];
  });
}
