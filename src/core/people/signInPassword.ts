/** As NIST SP 800-63B-4 (section 3.1.1.2) wants it where the password may stand alone: characters, of any kind. */
export const SHORTEST_SIGN_IN_PASSWORD = 15;
