/** Under this name every request has an id of its own, which the server gives it (scripts/start.ts). */
export const REQUEST_ID = "x-galtry-request";
