/** The address that dials a phone number, by what was typed of it (RFC 3966). */
export const telOf = (shown: string) => `tel:${shown.replace(/[^+\d]/g, '')}`
