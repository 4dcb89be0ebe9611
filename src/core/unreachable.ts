/** By this a browser knows a page that could not be made because the database did not answer. */
export const UNREACHABLE = "database-unreachable";
