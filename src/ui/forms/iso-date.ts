/** An ISO date and nothing else, blanks around it passed over. */
export const ISO_DATE = /^\s*\d{4}-\d\d-\d\d\s*$/;
