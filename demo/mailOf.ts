/** Everybody's mail address in the sample organisation. */
export const mailOf = (name: string) => `${name.toLowerCase().replace(/[^a-z]+/g, ".")}@tarrowick.example`;
